using Mendro.Core.Money;

namespace Mendro.Core.Jobs;

/// <summary>How an owner stands to the work.</summary>
public enum AgreementState
{
    /// <summary>Nothing was quoted.</summary>
    NotAsked,

    /// <summary>Quoted, and not answered yet.</summary>
    Waiting,

    /// <summary>Agreed to.</summary>
    Agreed,

    /// <summary>Agreed to, but it has cost more than that by now.</summary>
    Exceeded,

    /// <summary>Declined.</summary>
    Declined,
}

/// <summary>What was quoted, what was said to it, and whether the work is still within it.</summary>
/// <param name="State">How it stands.</param>
/// <param name="Quote">Last quote, or null.</param>
/// <param name="Answer">Answer to it, or null.</param>
/// <param name="Limit">Most that was agreed to, or null.</param>
public sealed record OwnerAgreement(AgreementState State, QuoteGiven? Quote, QuoteAnswered? Answer, Amount? Limit)
{
    /// <summary>Reads it from the records.</summary>
    /// <param name="bodies">Records that hold, in order.</param>
    /// <param name="soFar">Work and parts so far, or null where they have no price in the currency of the quote.</param>
    public static OwnerAgreement Of(IEnumerable<RecordBody> bodies, Amount? soFar)
    {
        QuoteGiven? quote = null;
        QuoteAnswered? answer = null;
        Amount? limit = null;
        foreach (var body in bodies)
        {
            if (body is QuoteGiven given)
                (quote, answer) = (given, null);
            if (body is not QuoteAnswered said)
                continue;
            answer = said;
            // What was agreed to stands until it is declined, also while a higher quote waits.
            limit =
                !said.Approved ? null
                : said.UpTo is { } most ? new Amount(most, said.Currency)
                : quote is { } asked ? new Amount(asked.High, asked.Currency)
                : null;
        }

        var beyond = limit is { } top && soFar is { } sum && sum.Currency == top.Currency && sum.Value > top.Value;
        var state =
            answer is { Approved: false } ? AgreementState.Declined
            : beyond ? AgreementState.Exceeded
            : answer is { Approved: true } ? AgreementState.Agreed
            : quote is not null ? AgreementState.Waiting
            : AgreementState.NotAsked;
        return new OwnerAgreement(state, quote, answer, limit);
    }

    /// <summary>What to heed before more is done, or null.</summary>
    public string? Caution =>
        State switch
        {
            AgreementState.Waiting => "The owner has not answered the quote yet.",
            AgreementState.Declined => "The owner declined. Nothing more is to be done.",
            AgreementState.Exceeded => $"This has cost more than the owner agreed to ({Limit}). Ask before more is done.",
            _ => null,
        };
}
