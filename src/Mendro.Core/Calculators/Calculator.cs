namespace Mendro.Core.Calculators;

/// <summary>One bench calculator: what it asks, how it computes, and where its formula comes from.</summary>
/// <param name="Name">Name, as the command line takes it.</param>
/// <param name="Title">Name, as the page shows it.</param>
/// <param name="Group">Group on the page.</param>
/// <param name="Formula">Formula in words and signs.</param>
/// <param name="Source">Where the formula and its figures come from.</param>
/// <param name="Keys">What it asks for.</param>
/// <param name="Compute">The computation; a failure names the key.</param>
public sealed record Calculator(
    string Name,
    string Title,
    string Group,
    string Formula,
    string Source,
    IReadOnlyList<CalculatorKey> Keys,
    Func<CalculatorInputs, Outcome<CalculatorAnswer>> Compute
)
{
    /// <summary>Reads the inputs and computes.</summary>
    /// <param name="given">What was given by key; empty texts count as not given.</param>
    /// <returns>The calculation, or a message that names the key at fault.</returns>
    public Outcome<Calculation> Run(IReadOnlyDictionary<string, string> given)
    {
        if (given.Keys.FirstOrDefault(k => Keys.All(known => known.Name != k)) is { } unknown)
            return Outcome<Calculation>.Fail($"{unknown}: {Name} has no such key. Known: {string.Join(", ", Keys.Select(k => k.Name))}.");
        var values = new Dictionary<string, object>();
        foreach (var key in Keys)
        {
            var text = given.TryGetValue(key.Name, out var told) && told.Trim().Length > 0 ? told : key.Standard;
            if (text is null)
            {
                if (key.Optional)
                    continue;
                return Outcome<Calculation>.Fail($"{key.Name}: is missing. Try {key.Name}={key.Example}.");
            }

            var read = key.Read(text);
            if (!read.IsOk)
                return Outcome<Calculation>.Fail(read.Problem!);
            values[key.Name] = read.Value;
        }

        var answer = Compute(new CalculatorInputs(values));
        if (!answer.IsOk)
            return Outcome<Calculation>.Fail(answer.Problem!);
        // Inputs within their ranges can still overflow together; an answer must be a number.
        if (answer.Value.Outputs.FirstOrDefault(o => o.Value is double d && !double.IsFinite(d)) is { } endless)
            return Outcome<Calculation>.Fail($"{Keys[0].Name}: these values lead to no finite {endless.Label}.");
        return Outcome<Calculation>.Ok(new Calculation(this, values, answer.Value));
    }
}
