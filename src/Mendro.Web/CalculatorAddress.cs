using Mendro.Core.Calculators;
using Microsoft.AspNetCore.WebUtilities;

namespace Mendro.Web;

/// <summary>Address of a calculator with what is known filled in.</summary>
public static class CalculatorAddress
{
    /// <summary>The calculation, opened from a job.</summary>
    /// <param name="link">Calculator and known values.</param>
    /// <param name="jobNumber">Number of the job.</param>
    public static string Of(CalculatorLink link, long jobNumber) =>
        QueryHelpers.AddQueryString(
            $"/Calculators/{link.Calculator.Name}",
            link.Known.Select(k => KeyValuePair.Create(k.Key, (string?)k.Value))
                .Append(KeyValuePair.Create("job", (string?)FormattableString.Invariant($"{jobNumber}")))
        );
}
