using Dapper;
using Mendro.Storage;
using Microsoft.Extensions.Diagnostics.HealthChecks;

namespace Mendro.Web;

/// <summary>Healthy when the database answers and the disk takes something.</summary>
public sealed class DatabaseHealth(ShopDatabase database, ShopRoom room) : IHealthCheck
{
    /// <inheritdoc/>
    public Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default)
    {
        using var connection = database.Open();
        connection.ExecuteScalar<long>("SELECT count(*) FROM profiles");
        if ((room.Problem ?? room.Try()) is not { } problem)
            return Task.FromResult(HealthCheckResult.Healthy());
        room.Lost(problem);
        return Task.FromResult(HealthCheckResult.Unhealthy(problem));
    }
}
