using System.Data;
using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Dapper;
using DbUp.Engine;

namespace Mendro.Storage.Migrations;

/// <summary>
/// Writes the payload of every record from the columns of the first three levels, then drops those. A reading was kept as text
/// only; this is the last time that it is parsed back. It knows no type of the shop: what those become later must not change what
/// was written here.
/// </summary>
internal sealed partial class PayloadMigration : IScript
{
    /// <summary>Name among the migrations; its number is its place.</summary>
    public const string Name = "Mendro.Storage.Migrations.005_payloads.cs";

    private static readonly JsonSerializerOptions Compact = new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <inheritdoc/>
    public string ProvideScript(Func<IDbCommand> dbCommandFactory)
    {
        using var command = dbCommandFactory();
        var (connection, transaction) = (command.Connection!, command.Transaction);
        foreach (var record in connection.Query<OldRecord>("SELECT * FROM bench_records ORDER BY id", transaction: transaction).AsList())
        {
            var body = Body(record);
            connection.Execute(
                """
                UPDATE bench_records SET kind = @kind, payload = @payload, payload_version = 1, symptom = @symptom WHERE id = @Id
                """,
                new
                {
                    record.Id,
                    kind = record.Kind.ToLowerInvariant(),
                    payload = (body ?? record.Kept()).ToJsonString(Compact),
                    symptom = record.Kind is "Mark" || record is { Kind: "Function", State: not "pass" },
                },
                transaction
            );
        }

        KeepAccess(connection, transaction);
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

    /// <summary>How far a unit is apart follows from its records from now on: what the job said is one of them. A unit that nobody
    /// opened or worked on is closed without a word.</summary>
    private static void KeepAccess(IDbConnection connection, IDbTransaction? transaction)
    {
        foreach (
            var job in connection
                .Query<OldJob>(
                    """
                    SELECT j.id, j.stage, j.access, coalesce(max(r.at), j.received_at) AS at, coalesce(max(r.seq), 0) AS seq
                    FROM jobs j LEFT JOIN bench_records r ON r.job_id = j.id AND r.withdrawn_at IS NULL
                    GROUP BY j.id HAVING j.access <> 'Closed' OR max(r.kind IN ('repair', 'probe')) = 1
                    """,
                    transaction: transaction
                )
                .AsList()
        )
        {
            if (Accesses.FirstOrDefault(a => a.Kept == job.Access) is not { Kept: not null } access)
                continue;
            connection.Execute(
                """
                INSERT INTO bench_records (job_id, seq, kind, subject, payload, words, stage, at, state, detail, reading, parts)
                VALUES (@Id, @seq, 'access', '', @payload, @Words, @Stage, @At, '', '', '', '')
                """,
                new
                {
                    job.Id,
                    seq = job.Seq + 1,
                    payload = new JsonObject { ["state"] = access.Written }.ToJsonString(Compact),
                    access.Words,
                    job.Stage,
                    job.At,
                },
                transaction
            );
        }
    }

    private static readonly (string Kept, string Written, string Words)[] Accesses =
    [
        ("Closed", "closed", "Closed up again"),
        ("Open", "open", "Case opened"),
        ("BoardOut", "board-out", "Board out"),
        ("Lifted", "lifted", "Part lifted"),
    ];

    private static JsonObject? Body(OldRecord old)
    {
        var body = old.Kind switch
        {
            "Function" => new JsonObject
            {
                ["function"] = old.Subject,
                ["passed"] = old.State == "pass",
                ["look"] = old.Detail.Length > 0 ? old.Detail : null,
                ["starts"] = Math.Max(1, old.Trials),
            },
            "Probe" => Probe(old),
            "Mark" => new JsonObject { ["mark"] = old.Subject },
            "Cause" => new JsonObject { ["part"] = old.Subject, ["mode"] = old.Detail, ["present"] = old.State == "present" },
            "Repair" => new JsonObject { ["part"] = old.Subject, ["method"] = old.Detail, ["used"] = old.Parts },
            "Provoke" when old.Detail is "pressed" or "flexed" or "warmed" => new JsonObject
            {
                ["function"] = old.Subject,
                ["how"] = old.Detail,
                ["changed"] = old.State == "changed",
            },
            "Swap" => Swap(old),
            "Calculation" => Calculation(old),
            _ => null,
        };
        // What is not there is left out.
        foreach (var name in body?.Where(p => p.Value is null).Select(p => p.Key).ToList() ?? [])
            body!.Remove(name);
        return body;
    }

    private static JsonObject Probe(OldRecord old)
    {
        var verdict =
            old.Reading.Length > 0 && old.Words.IndexOf(old.Reading + ", ", StringComparison.Ordinal) is >= 0 and var at
                ? old.Words[(at + old.Reading.Length + 2)..]
                : old.Words[(old.Words.IndexOf(": ", StringComparison.Ordinal) is >= 0 and var colon ? colon + 2 : 0)..];
        return new JsonObject
        {
            ["probe"] = old.Subject,
            ["outcome"] = old.State is "normal" or "jumps" ? old.State : "abnormal",
            ["reading"] = old.Reading is "good" or "not good" or "" ? null : Reading(old.Reading, old.Value),
            ["verdict"] = verdict,
            ["reason"] = "",
            ["caution"] = old.Detail.Length > 0 ? old.Detail : null,
        };
    }

    /// <summary>A reading as the first levels wrote it: <c>6.21 V</c>, <c>4.7 kΩ</c>, <c>OL</c>, <c>no beep</c>, <c>beep, jumps</c>,
    /// or words.</summary>
    private static JsonObject Reading(string text, double? exact)
    {
        const string Jumping = ", jumps";
        var jumps = text.EndsWith(Jumping, StringComparison.Ordinal);
        var plain = jumps ? text[..^Jumping.Length] : text;
        var measured = Measured().Match(plain);
        JsonObject reading =
            plain is "OL" ? new() { ["unit"] = "over-range" }
            : plain is "beep" or "no beep" ? new() { ["unit"] = "beep", ["value"] = plain is "beep" ? 1.0 : 0.0 }
            : measured.Success && Units.FirstOrDefault(u => u.Sign == measured.Groups["unit"].Value) is { Name: { } unit }
                ? new()
                {
                    ["unit"] = measured.Groups["diode"].Success ? "diode-volts" : unit,
                    ["value"] = exact ?? double.Parse(measured.Groups["number"].Value, CultureInfo.InvariantCulture) * Scale(measured.Groups["prefix"].Value),
                }
            : new() { ["unit"] = "word", ["word"] = plain };
        reading["jumps"] = jumps;
        return reading;
    }

    private static readonly (string Sign, string Name)[] Units = [("V", "volts"), ("Ω", "ohms"), ("A", "amps"), ("F", "farads")];

    private static double Scale(string prefix) =>
        prefix switch
        {
            "G" => 1e9,
            "M" => 1e6,
            "k" => 1e3,
            "m" => 1e-3,
            "µ" => 1e-6,
            "n" => 1e-9,
            "p" => 1e-12,
            _ => 1,
        };

    [GeneratedRegex("^(?<number>-?[0-9]+(\\.[0-9]+)?) (?<prefix>[GMkmµnp]?)(?<unit>[VΩAF])(?<diode> diode)?$")]
    private static partial Regex Measured();

    private static JsonObject? Swap(OldRecord old) =>
        Parsed(old.Detail) is { } detail
            ? new JsonObject
            {
                ["function"] = old.Subject,
                ["result"] = old.State is "pass" or "flicker" ? old.State : "fail",
                ["chain"] = detail["chain"]?.DeepClone(),
                ["out"] = detail["out"]?.DeepClone(),
                ["gear"] = detail["gear"]?.DeepClone(),
            }
            : null;

    private static JsonObject? Calculation(OldRecord old)
    {
        if (Parsed(old.Detail.Length > 0 ? old.Detail : "{}") is not { } inputs)
            return null;
        var colon = Math.Max(0, old.Words.IndexOf(": ", StringComparison.Ordinal));
        return new JsonObject
        {
            ["calculator"] = old.Subject,
            ["name"] = old.Words[..colon],
            ["text"] = old.Words[(colon > 0 ? colon + 2 : 0)..],
            ["inputs"] = inputs.DeepClone(),
            ["good"] = old.State switch
            {
                "good" => true,
                "bad" => false,
                _ => null,
            },
        };
    }

    private static JsonObject? Parsed(string json)
    {
        try
        {
            return JsonNode.Parse(json) as JsonObject;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private sealed class OldJob
    {
        public long Id { get; init; }
        public string Stage { get; init; } = "";
        public string Access { get; init; } = "";
        public string At { get; init; } = "";
        public long Seq { get; init; }
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
        public JsonObject Kept() =>
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
