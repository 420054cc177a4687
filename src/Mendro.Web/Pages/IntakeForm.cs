using System.Security.Cryptography;
using System.Text.Json;
using System.Text.Json.Serialization;
using FluentValidation;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc.ModelBinding;

namespace Mendro.Web.Pages;

/// <summary>What the intake form holds, as typed.</summary>
public sealed class IntakeForm
{
    /// <summary>Profile id.</summary>
    public string? Profile { get; set; }

    /// <summary>Model that is meant instead, chosen beside a name nobody knows.</summary>
    [JsonIgnore]
    public string? Meant { get; set; }

    /// <summary>Build that a name nobody knows is nearest to.</summary>
    public string? Build { get; set; }

    /// <summary>How it is fed, asked of a name nobody knows.</summary>
    public string? Fed { get; set; }

    /// <summary>What goes in.</summary>
    public string? Takes { get; set; }

    /// <summary>What comes out.</summary>
    public string? Gives { get; set; }

    /// <summary>Name of the unit, on a generic profile.</summary>
    public string? UnitName { get; set; }

    /// <summary>Board revision; blank for not known yet.</summary>
    public string? Revision { get; set; }

    /// <summary>Serial number.</summary>
    public string? Serial { get; set; }

    /// <summary>customer or shop.</summary>
    public string? Owner { get; set; } = "customer";

    /// <summary>Owner's name.</summary>
    public string? OwnerName { get; set; }

    /// <summary>Owner's phone, mail or address.</summary>
    public string? OwnerContact { get; set; }

    /// <summary>Day for which it is promised.</summary>
    public string? Promised { get; set; }

    /// <summary>Price paid.</summary>
    public string? Paid { get; set; }

    /// <summary>Currency.</summary>
    public string? Currency { get; set; }

    /// <summary>Lot.</summary>
    public string? Lot { get; set; }

    /// <summary>Accessories.</summary>
    public string? Accessories { get; set; }

    /// <summary>The claim.</summary>
    public string? Claim { get; set; }

    /// <summary>Condition beyond the list.</summary>
    public string? ConditionNote { get; set; }

    /// <summary>Value when it works.</summary>
    public string? ValueWorking { get; set; }

    /// <summary>Value as it stands.</summary>
    public string? ValueAsIs { get; set; }

    /// <summary>Value in parts.</summary>
    public string? ValueParts { get; set; }

    /// <summary>Condition marks ticked.</summary>
    public List<string> Marks { get; set; } = [];

    /// <summary>Mark to slight or heavy.</summary>
    public Dictionary<string, string?> MarkGrade { get; set; } = [];

    /// <summary>Mark to where it is.</summary>
    public Dictionary<string, string?> MarkPlace { get; set; } = [];

    /// <summary>Baseline: function id to pass or fail.</summary>
    public Dictionary<string, string?> Result { get; set; } = [];

    /// <summary>Baseline: function id to look.</summary>
    public Dictionary<string, string?> Look { get; set; } = [];

    /// <summary>Words of the claim of which it is not sure what they say; never read back.</summary>
    [BindNever, JsonIgnore]
    public IReadOnlyList<string> Unsure { get; set; } = [];

    /// <summary>Models of the shop that a name nobody knows may stand for, the nearest first; never read back.</summary>
    [BindNever, JsonIgnore]
    public IReadOnlyList<string> Nearest { get; set; } = [];

    /// <summary>What stood in the file when the form was shown; see <see cref="Mark"/>.</summary>
    public string? Shown { get; set; }

    /// <summary>A mark of all that the form holds, to tell whether the file was changed since.</summary>
    public static string Mark(Job job, IEnumerable<string> marks)
    {
        var held = From(job);
        held.Marks = [.. marks.Order(StringComparer.Ordinal)];
        return Convert.ToHexString(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(held)).AsSpan(0, 12));
    }

    /// <summary>Fields that say something else here than in the file, with what the file says.</summary>
    public IEnumerable<(string Field, string Held)> Against(IntakeForm file)
    {
        foreach (var property in typeof(IntakeForm).GetProperties().Where(p => p.PropertyType == typeof(string) && p.CanWrite))
        {
            if (property.Name is nameof(Profile) or nameof(Meant) or nameof(Shown) or nameof(Build) or nameof(Fed) or nameof(Takes) or nameof(Gives))
                continue;
            var (mine, theirs) = (Words.Clean((string?)property.GetValue(this)), Words.Clean((string?)property.GetValue(file)));
            if (mine != theirs)
                yield return (property.Name, theirs.Length > 0 ? theirs : "nothing");
        }
    }

    /// <summary>What is known of the build of a name nobody knows.</summary>
    public BuildQuestion Question(TradeLibrary library) =>
        new(Told<FedBy>(Fed), Told<Takes>(Takes), Told<Gives>(Gives), $"{Profile} {NewName.Tells(Claim ?? "", library)}", Claim);

    private static T? Told<T>(string? word)
        where T : struct, Enum => Enum.TryParse<T>(word?.Replace("-", "", StringComparison.Ordinal), true, out var told) ? told : null;

    /// <summary>Marks with grade and place as they are filed.</summary>
    public IReadOnlyList<string> Noted() =>
        Marks
            .Where(id => !string.IsNullOrEmpty(id))
            .Distinct()
            .Select(id => MarkNoted.Write(id, MarkGrade.GetValueOrDefault(id), Words.Clean(MarkPlace.GetValueOrDefault(id))))
            .ToList();

    /// <summary>Fills the marks from what was filed.</summary>
    public void Take(IEnumerable<MarkNoted> marks)
    {
        foreach (var mark in marks)
        {
            Marks.Add(mark.Mark);
            MarkGrade[mark.Mark] = mark.GradeWord;
            MarkPlace[mark.Mark] = mark.Place;
        }
    }

    /// <summary>Takes what costs are kept from another form: who may not see them does not change them.</summary>
    public void KeepCosts(IntakeForm from) =>
        (Paid, ValueWorking, ValueAsIs, ValueParts) = (from.Paid, from.ValueWorking, from.ValueAsIs, from.ValueParts);

    /// <summary>True when the unit is the shop's own.</summary>
    public bool ShopStock => Owner == "shop";

    /// <summary>Fills the form from a job.</summary>
    public static IntakeForm From(Job job) =>
        new()
        {
            Profile = job.ProfileId,
            UnitName = job.UnitName,
            Revision = job.Revision,
            Serial = job.Serial,
            Owner = job.ShopStock ? "shop" : "customer",
            OwnerName = job.CustomerName,
            OwnerContact = job.CustomerContact,
            Promised = job.Promised,
            Paid = Text(job.Paid),
            Currency = job.Currency,
            Lot = job.Lot,
            Accessories = job.Accessories,
            Claim = job.Claim,
            ConditionNote = job.ConditionNote,
            ValueWorking = Text(job.ValueWorking),
            ValueAsIs = Text(job.ValueAsIs),
            ValueParts = Text(job.ValueParts),
        };

    /// <summary>Writes the form into a job. The form must be valid.</summary>
    public Job Into(Job job) =>
        job with
        {
            UnitName = Words.Clean(UnitName),
            Revision = Words.Clean(Revision),
            Serial = Words.Clean(Serial),
            Lot = ShopStock ? Words.Clean(Lot) : "",
            Promised = ShopStock || DayText.Read(Words.Clean(Promised)) is not { } day ? "" : DayText.Write(day),
            Paid = ShopStock ? Told(Paid) : null,
            Currency = Words.Clean(Currency).ToUpperInvariant(),
            Accessories = Words.Clean(Accessories),
            Claim = Words.Clean(Claim),
            ConditionNote = Words.Clean(ConditionNote),
            ValueWorking = Told(ValueWorking),
            ValueAsIs = Told(ValueAsIs),
            ValueParts = Told(ValueParts),
        };

    private decimal? Told(string? text) =>
        Amount.TryRead(text, new Currency(Words.Clean(Currency).ToUpperInvariant()), out var amount) is null ? amount?.Value : null;

    private static string? Text(decimal? amount) => amount?.ToString(System.Globalization.CultureInfo.InvariantCulture);
}

/// <summary>Rules of the intake form; messages say what to do.</summary>
public sealed class IntakeRules : AbstractValidator<IntakeForm>
{
    /// <summary>Sets the rules up.</summary>
    public IntakeRules()
    {
        RuleFor(f => f.Profile).NotEmpty().WithMessage("Choose a model, or a generic profile of its kind.");
        RuleFor(f => f.OwnerName)
            .Must(n => Words.Clean(n).Length > 0)
            .When(f => !f.ShopStock)
            .WithMessage("Whose is it? Give a name, or choose shop stock.");
        RuleFor(f => f.OwnerName).MaximumLength(120).WithMessage("At most 120 characters.");
        foreach (
            var expression in new System.Linq.Expressions.Expression<Func<IntakeForm, string?>>[]
            {
                f => f.UnitName,
                f => f.Serial,
                f => f.Lot,
                f => f.OwnerContact,
            }
        )
            RuleFor(expression).MaximumLength(120).WithMessage("At most 120 characters.");
        RuleFor(f => f.MarkPlace)
            .Must(p => p.Values.All(v => Words.Clean(v).Length <= MarkNoted.LongestPlace))
            .WithMessage("Where a mark is: at most 60 characters.");
        RuleFor(f => f.Promised)
            .Must(p => Words.Clean(p).Length == 0 || DayText.Read(Words.Clean(p)) is not null)
            .When(f => !f.ShopStock)
            .WithMessage("A day such as 2026-11-26, or none.");
        RuleFor(f => f.Revision).MaximumLength(20).WithMessage("At most 20 characters.");
        foreach (
            var expression in new System.Linq.Expressions.Expression<Func<IntakeForm, string?>>[]
            {
                f => f.Claim,
                f => f.Accessories,
                f => f.ConditionNote,
            }
        )
            RuleFor(expression).MaximumLength(2000).WithMessage("At most 2000 characters.");
        RuleFor(f => f.Currency)
            .Must(c => Mendro.Core.Money.Currency.IsCode(Words.Clean(c).ToUpperInvariant()))
            .WithMessage("Three letters, such as EUR.");
        foreach (
            var expression in new System.Linq.Expressions.Expression<Func<IntakeForm, string?>>[]
            {
                f => f.Paid,
                f => f.ValueWorking,
                f => f.ValueAsIs,
                f => f.ValueParts,
            }
        )
        {
            RuleFor(expression)
                .Custom(
                    (text, context) =>
                    {
                        var currency = new Currency(Words.Clean(context.InstanceToValidate.Currency).ToUpperInvariant());
                        if (Amount.TryRead(text, currency, out _) is { } problem)
                            context.AddFailure(problem);
                    }
                );
        }
    }
}
