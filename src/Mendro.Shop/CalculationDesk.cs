using System.Text.Json;
using Mendro.Core.Calculators;
using Mendro.Core.Jobs;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Calculations filed in a job, for the record.</summary>
public sealed class CalculationDesk(JobBench bench)
{
    /// <summary>Files a calculation.</summary>
    public Deed<Done> File(long number, Calculation calculation, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                var inputs = calculation.Inputs.ToDictionary(i => i.Key, i => JsonSerializer.SerializeToElement(i.Value));
                var body = new CalculationFiled(
                    calculation.Calculator.Name,
                    calculation.Calculator.Title,
                    CalculatorWords.InAndOut(calculation),
                    inputs,
                    calculation.Answer.Good
                );
                bench.File(job, body, job.Job.Stage);
                return new Done($"Filed in job {job.Job.Tag}.");
            }
        );
}
