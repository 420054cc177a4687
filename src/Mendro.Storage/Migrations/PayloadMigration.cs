using System.Data;
using System.Globalization;
using System.Text.Json;
using Dapper;
using DbUp.Engine;
using Mendro.Core.Calculators;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Storage.Migrations;

/// <summary>
/// Writes the payload of every record from the columns of the first three levels, then drops those. A reading was kept as text
/// only; this is the last time that it is parsed back.
/// </summary>
internal sealed class PayloadMigration : IScript
{
    /// <summary>Name among the migrations; its number is its place.</summary>
    public const string Name = "Mendro.Storage.Migrations.005_payloads.cs";

    private static readonly JsonSerializerOptions Compact = new(ProfileJson.Options) { WriteIndented = false };

    private readonly Dictionary<(string, long), DeviceModel?> _models = [];

    /// <inheritdoc/>
    public string ProvideScript(Func<IDbCommand> dbCommandFactory)
    {
        using var command = dbCommandFactory();
        var (connection, transaction) = (command.Connection!, command.Transaction);
        foreach (var record in connection.Query<OldRecord>("SELECT * FROM bench_records ORDER BY id", transaction: transaction).AsList())
        {
            var (kind, body) = (record.Kind.ToLowerInvariant(), Body(record));
            connection.Execute(
                """
                UPDATE bench_records SET kind = @kind, payload = @payload, payload_version = @version, symptom = @symptom WHERE id = @Id
                """,
                new
                {
                    record.Id,
                    kind,
                    payload = body is null ? JsonSerializer.Serialize(record.Kept(), Compact) : RecordKinds.Write(body),
                    version = body?.PayloadVersion ?? 1,
                    symptom = body?.IsSymptom == true,
                },
                transaction
            );
        }

        foreach (
            var job in connection
                .Query<OldJob>("SELECT id, profile_id, profile_version, stage, access, received_at FROM jobs", transaction: transaction)
                .AsList()
        )
            KeepAccess(connection, transaction, job);
        return """
            ALTER TABLE bench_records DROP COLUMN state;
            ALTER TABLE bench_records DROP COLUMN detail;
            ALTER TABLE bench_records DROP COLUMN trials;
            ALTER TABLE bench_records DROP COLUMN reading;
            ALTER TABLE bench_records DROP COLUMN value;
            ALTER TABLE bench_records DROP COLUMN parts;
            ALTER TABLE jobs DROP COLUMN access;
            """;
    }

    /// <summary>Where the records do not say how far a unit is apart, one more record does.</summary>
    private void KeepAccess(IDbConnection connection, IDbTransaction? transaction, OldJob job)
    {
        if (Model(connection, transaction, job) is not { } model)
            return;
        var rows = connection
            .Query<(string Kind, string Payload, long Seq, string At)>(
                "SELECT kind, payload, seq, at FROM bench_records WHERE job_id = @Id AND withdrawn_at IS NULL ORDER BY seq, id",
                new { job.Id },
                transaction
            )
            .AsList();
        var derived = UnitAccess.Of(model, rows.Select(r => new BenchRecord { Body = RecordKinds.Read(r.Kind, 1, r.Payload) }));
        if (!Enum.TryParse<AccessState>(job.Access, out var kept) || kept == derived)
            return;
        var body = new AccessNoted(kept);
        connection.Execute(
            """
            INSERT INTO bench_records (job_id, seq, kind, subject, payload, words, stage, at, state, detail, reading, parts)
            VALUES (@Id, @seq, @Key, '', @payload, @words, @Stage, @at, '', '', '', '')
            """,
            new
            {
                job.Id,
                seq = rows.Select(r => r.Seq).DefaultIfEmpty(0).Max() + 1,
                body.Key,
                payload = RecordKinds.Write(body),
                words = body.Describe(model),
                job.Stage,
                at = rows.Select(r => r.At).DefaultIfEmpty(job.ReceivedAt).Max(),
            },
            transaction
        );
    }

    private DeviceModel? Model(IDbConnection connection, IDbTransaction? transaction, OldJob job)
    {
        if (_models.TryGetValue((job.ProfileId, job.ProfileVersion), out var known))
            return known;
        var json = connection.QueryFirstOrDefault<string>(
            "SELECT json FROM profiles WHERE id = @ProfileId AND version = @ProfileVersion",
            new { job.ProfileId, job.ProfileVersion },
            transaction
        );
        var profile = json is null ? null : ProfileJson.Read(json).Value;
        return _models[(job.ProfileId, job.ProfileVersion)] = profile is null ? null : new DeviceModel(profile, TradeLibrary.Shipped);
    }

    private static RecordBody? Body(OldRecord old) =>
        old.Kind switch
        {
            "Function" => new FunctionTrial(
                old.Subject,
                old.State == "pass",
                old.Detail.Length > 0 ? old.Detail : null,
                (int)Math.Max(1, old.Trials)
            ),
            "Probe" => Probe(old),
            "Mark" => new MarkNoted(old.Subject),
            "Cause" => new CauseSeen(old.Subject, old.Detail, old.State == "present"),
            "Repair" => new RepairLogged(old.Subject, old.Detail, old.Parts),
            "Provoke" when Enum.TryParse<Provocation>(old.Detail, ignoreCase: true, out var how) => new ProvokeTrial(
                old.Subject,
                how,
                old.State == "changed"
            ),
            "Swap" => Swap(old),
            "Calculation" => Calculation(old),
            _ => null,
        };

    private static ProbeReading Probe(OldRecord old)
    {
        var outcome = old.State switch
        {
            "normal" => ProbeOutcome.Normal,
            "jumps" => ProbeOutcome.Jumps,
            _ => ProbeOutcome.Abnormal,
        };
        // The unit stands in the text; without one it was a word.
        var reading = old.Reading is "good" or "not good" or ""
            ? null
            : ReadingParser.Parse(old.Reading, ReadingUnit.Volts).Value ?? new Reading(ReadingUnit.Word, null, old.Reading);
        if (reading is { Value: not null } && old.Value is { } exact)
            reading = reading with { Value = exact };
        var verdict =
            old.Reading.Length > 0 && old.Words.IndexOf(old.Reading + ", ", StringComparison.Ordinal) is >= 0 and var at
                ? old.Words[(at + old.Reading.Length + 2)..]
                : old.Words[(old.Words.IndexOf(": ", StringComparison.Ordinal) is >= 0 and var colon ? colon + 2 : 0)..];
        return new ProbeReading(old.Subject, outcome, reading, verdict, "", old.Detail.Length > 0 ? old.Detail : null);
    }

    private static SwapTrial? Swap(OldRecord old)
    {
        try
        {
            var detail = JsonSerializer.Deserialize<OldSwap>(old.Detail, Compact);
            var result = old.State switch
            {
                "pass" => SwapResult.Pass,
                "flicker" => SwapResult.Flicker,
                _ => SwapResult.Fail,
            };
            return detail is null ? null : new SwapTrial(old.Subject, result, detail.Chain, detail.Out, detail.Gear);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static CalculationFiled? Calculation(OldRecord old)
    {
        try
        {
            var inputs = JsonSerializer.Deserialize<Dictionary<string, JsonElement>>(old.Detail.Length > 0 ? old.Detail : "{}") ?? [];
            var colon = Math.Max(0, old.Words.IndexOf(": ", StringComparison.Ordinal));
            return new CalculationFiled(
                old.Subject,
                old.Words[..colon],
                old.Words[(colon > 0 ? colon + 2 : 0)..],
                inputs,
                old.State switch
                {
                    "good" => true,
                    "bad" => false,
                    _ => null,
                }
            );
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private sealed record OldSwap(IReadOnlyList<PartId> Chain, IReadOnlyList<PartId> Out, IReadOnlyList<SwapPiece> Gear);

    private sealed class OldJob
    {
        public long Id { get; init; }
        public string ProfileId { get; init; } = "";
        public long ProfileVersion { get; init; }
        public string Stage { get; init; } = "";
        public string Access { get; init; } = "";
        public string ReceivedAt { get; init; } = "";
    }

    private sealed class OldRecord
    {
        public long Id { get; init; }
        public string Kind { get; init; } = "";
        public string Subject { get; init; } = "";
        public string State { get; init; } = "";
        public string Detail { get; init; } = "";
        public long Trials { get; init; }
        public string Reading { get; init; } = "";
        public double? Value { get; init; }
        public string Words { get; init; } = "";
        public string Parts { get; init; } = "";

        /// <summary>What a record of an unknown kind held, so that nothing is lost.</summary>
        public Dictionary<string, string> Kept() =>
            new()
            {
                ["state"] = State,
                ["detail"] = Detail,
                ["trials"] = Trials.ToString(CultureInfo.InvariantCulture),
                ["reading"] = Reading,
                ["value"] = Value?.ToString("R", CultureInfo.InvariantCulture) ?? "",
                ["parts"] = Parts,
            };
    }
}
