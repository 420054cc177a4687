using Dapper;
using Mendro.Storage;
using Microsoft.Extensions.Diagnostics.HealthChecks;

namespace Mendro.Web;

/// <summary>Healthy when the database answers.</summary>
public sealed class DatabaseHealth(ShopDatabase database) : IHealthCheck
{
    /// <inheritdoc/>
    public Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default)
    {
        using var connection = database.Open();
        connection.ExecuteScalar<long>("SELECT count(*) FROM profiles");
        return Task.FromResult(HealthCheckResult.Healthy());
    }
}
