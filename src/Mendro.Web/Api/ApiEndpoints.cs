using System.IO.Compression;
using System.Text.Json;
using System.Text.Json.Serialization;
using Mendro.Core.Access;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Access;
using Mendro.Web.Pages;
using Microsoft.OpenApi;

namespace Mendro.Web.Api;

/// <summary>The interface for other programs: the same rules and transactions as the pages.</summary>
public static class ApiEndpoints
{
    /// <summary>Where it lies.</summary>
    public const string Root = "/api/1";

    /// <summary>Header of a key under which a request is done once, however often it is sent.</summary>
    public const string KeyHeader = "Idempotency-Key";

    private const string Tag = "shop";

    // A field that nobody knows is a field that somebody misspelt.
    private static readonly JsonSerializerOptions Json = new(JsonSerializerOptions.Web)
    {
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
    };

    /// <summary>Describes it by OpenAPI, by the framework's own generator.</summary>
    public static void AddApi(this IServiceCollection services)
    {
        ProgramGate.AddLimits(services);
        services.AddOpenApi(
            "1",
            api =>
            {
                api.ShouldInclude = described => described.RelativePath?.StartsWith("api/1/", StringComparison.Ordinal) == true;
                api.AddDocumentTransformer(
                    (document, _, _) =>
                    {
                        document.Info.Title = "Mendro, for other programs";
                        document.Info.Version = "1";
                        document.Info.Description =
                            "Every request carries the token of a program (Settings, Programs): Authorization: Bearer …. "
                            + "What goes wrong is told as problem details (RFC 9457). A post with an Idempotency-Key is done once; "
                            + "the same key with another request is refused (422).";
                        document.Info.License = new OpenApiLicense { Name = "All rights reserved", Identifier = "LicenseRef-Proprietary" };
                        document.Tags = new HashSet<OpenApiTag> { new() { Name = Tag, Description = "What a program may ask of the shop" } };
                        document.Servers = [new OpenApiServer { Url = "/", Description = "The shop that answered" }];
                        document.Components ??= new OpenApiComponents();
                        document.Components.SecuritySchemes = new Dictionary<string, IOpenApiSecurityScheme>
                        {
                            ["token"] = new OpenApiSecurityScheme { Type = SecuritySchemeType.Http, Scheme = "bearer" },
                        };
                        document.Security = [new OpenApiSecurityRequirement { [new OpenApiSecuritySchemeReference("token", document)] = [] }];
                        return Task.CompletedTask;
                    }
                );
            }
        );
    }

    /// <summary>Maps it.</summary>
    public static void MapApi(this WebApplication app)
    {
        app.MapOpenApi("/openapi/{documentName}.json").WithMetadata(new EndpointRight(Right.LookAtCounter));
        var api = app.MapGroup(Root).WithMetadata(new ForPrograms()).WithTags(Tag).AddEndpointFilter(ProgramGate.Check)
            .AddEndpointFilter(OneTime.Check).RequireRateLimiting(ProgramGate.UsualLimit);
        api.MapGet("/bench", Bench).WithName("readBench")
            .Asks(ProgramScope.ReadJobs, "The bench: every unit with its next move, in the order of the shop").Produces<BenchShape[]>();
        api.MapGet("/jobs/{number:long}", ReadJob).WithName("readJob")
            .Asks(ProgramScope.ReadJobs, "One job with what is on file").Produces<JobShape>().NotFound();
        api.MapPost("/jobs", TakeIn).WithName("takeIn")
            .Asks(ProgramScope.TakeIn, "Takes a unit in").Accepts<NewUnit>("application/json")
            .Produces<TakenUnit>(StatusCodes.Status201Created).Refuses();
        api.MapPost("/jobs/{number:long}/readings", AddReading).WithName("addReading")
            .Asks(ProgramScope.Readings, "Adds a reading, or the trial of a function")
            .Accepts<NewReading>("application/json").Produces<AddedRecord>(StatusCodes.Status201Created).Refuses().NotFound();
        api.MapPost("/jobs/{number:long}/pictures", AddPicture).WithName("addPicture")
            .Asks(ProgramScope.Pictures, "Adds a picture: JPEG, PNG or WebP as the body")
            .Accepts<byte[]>("image/jpeg", "image/png", "image/webp").Produces<AddedPicture>(StatusCodes.Status201Created).Refuses().NotFound();
        api.MapGet("/stock", Stock).WithName("readStock")
            .Asks(ProgramScope.Stock, "Stock levels").Produces<StockShape[]>();
        api.MapGet("/export", Export).WithName("export")
            .Asks(ProgramScope.Export, "The whole shop as CSV and JSON in a ZIP file (docs/formats.md)")
            .Produces(StatusCodes.Status200OK, contentType: "application/zip").RequireRateLimiting(ProgramGate.ExportLimit);
        app.Map(Root + "/{**rest}", () => Problems.Of(StatusCodes.Status404NotFound, "There is no such address, or it is not asked in this way."))
            .WithMetadata(new ForPrograms()).RequireRateLimiting(ProgramGate.UsualLimit).ExcludeFromDescription();
    }

    private static RouteHandlerBuilder Asks(this RouteHandlerBuilder builder, string scope, string summary) =>
        builder.WithMetadata(new ProgramRight(scope)).WithSummary(summary).WithDescription($"Right: {scope}")
            .ProducesProblem(StatusCodes.Status401Unauthorized).ProducesProblem(StatusCodes.Status403Forbidden)
            .ProducesProblem(StatusCodes.Status429TooManyRequests);

    private static RouteHandlerBuilder NotFound(this RouteHandlerBuilder builder) => builder.ProducesProblem(StatusCodes.Status404NotFound);

    private static RouteHandlerBuilder Refuses(this RouteHandlerBuilder builder) =>
        builder.ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status409Conflict)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity);

    private static IResult Bench(JobStore jobs, BenchDesk desk, SettingsStore settings)
    {
        var states = desk.States(jobs.Live().Where(j => j.Shelf == Shelf.None).ToList());
        var ranked = NextLine.Rank(states.Select(s => s.View).OfType<JobView>(), BenchOrder.Of(settings), settings.Get().PerHour);
        return Results.Ok(
            ranked
                .Select(l => new BenchShape(l.Job.Number, l.Job.Title, $"{l.Stage}", l.Symptom, l.Move, l.Chance, l.Minutes))
                // A unit that just came in is on the bench too.
                .Concat(
                    from state in states
                    where state.View is null
                    select new BenchShape(state.Job.Number, state.Job.Title, $"{state.Job.Stage}", state.Job.Claim, null, null, null)
                )
                .ToList()
        );
    }

    private static IResult ReadJob(long number, JobStore jobs, BenchRecordStore records)
    {
        if (jobs.Find(number) is not { DeletedAt: null } job)
            return Problems.Of(Refusal.Missing);
        return Results.Ok(
            new JobShape
            {
                Number = job.Number,
                Title = job.Title,
                Model = job.ProfileId,
                Serial = job.Serial,
                Stage = $"{job.Stage}",
                Shelf = $"{job.Shelf}",
                Reason = job.ShelfReason,
                Ending = $"{job.Ending}",
                Claim = job.Claim,
                ReceivedAt = job.ReceivedAt,
                Promised = job.PromisedOn,
                Records = records.Of(job.Id).Select(r => new RecordShape(r.Id, r.At, r.Body.Key, r.Words, r.Minutes)).ToList(),
            }
        );
    }

    private static async Task<IResult> TakeIn(HttpContext context, IntakeDesk intake, ProfileStore profiles, SettingsStore settings)
    {
        var (unit, wrong) = await ReadAsync<NewUnit>(context);
        if (unit is null)
            return wrong!;
        var all = profiles.All();
        var model =
            all.FirstOrDefault(p => p.Id == unit.Model)
            ?? all.FirstOrDefault(p => p.FullName.Equals(unit.Model?.Trim(), StringComparison.OrdinalIgnoreCase));
        var form = new IntakeForm
        {
            Profile = model?.Id,
            UnitName = unit.UnitName,
            Serial = unit.Serial,
            Revision = unit.Revision,
            Owner = unit.Owner is null ? "shop" : "customer",
            OwnerName = unit.Owner,
            OwnerContact = unit.Contact,
            Claim = unit.Claim,
            Accessories = unit.Accessories,
            ConditionNote = unit.Condition,
            Promised = unit.Promised,
            Lot = unit.Lot,
            Currency = settings.Get().Currency,
        };
        var errors = new IntakeRules()
            .Validate(form)
            .Errors.GroupBy(e => Name(e.PropertyName))
            .ToDictionary(g => g.Key, g => g.Select(e => e.ErrorMessage).ToArray());
        if (model is null)
            errors["model"] = ["The shop knows no such model: say its id, or its name as under Models."];
        if (errors.Count > 0)
            return Problems.Of(errors);
        var owner = form.ShopStock ? null : Words.Clean(form.OwnerName);
        var order = new IntakeOrder(form.Into(new Job { ProfileId = model!.Id }), owner, Words.Clean(form.OwnerContact), [], []);
        return intake.TakeIn(order, OneTime.Of(context))
            .Match(taken => Results.Created($"{Root}/jobs/{taken.Number}", new TakenUnit(taken.Number)), Problems.Of);
    }

    private static async Task<IResult> AddReading(long number, HttpContext context, ReadingDesk desk)
    {
        var (reading, wrong) = await ReadAsync<NewReading>(context);
        if (reading is null)
            return wrong!;
        if (reading is { Function: { Length: > 0 } function, Works: { } works, Probe: null, Value: null })
            return Added(number, desk.Try(new TrialOrder(number, function, works), OneTime.Of(context)));
        if (reading is { Probe: { Length: > 0 } probe, Value: { Length: > 0 and <= 200 } value, Function: null, Works: null })
            return Added(number, desk.Read(new ReadingOrder(number, probe, Words.Clean(value)), OneTime.Of(context)));
        return Problems.Of(
            StatusCodes.Status422UnprocessableEntity,
            "A reading has a probe and a value of up to 200 characters; a trial has a function and whether it works."
        );
    }

    private static async Task<IResult> AddPicture(long number, HttpContext context, PictureDesk desk, string? about, string? side, string? caption)
    {
        if (context.Request.ContentType?.StartsWith("image/", StringComparison.OrdinalIgnoreCase) != true)
            return Problems.Of(StatusCodes.Status415UnsupportedMediaType, "The picture itself is the body: image/jpeg, image/png or image/webp.");
        if (context.Request.ContentLength > PictureDesk.MostBytes)
            return Problems.Of(StatusCodes.Status413PayloadTooLarge, $"A picture has up to {PictureDesk.MostBytes / 1024 / 1024} MB.");
        using var held = new MemoryStream();
        await context.Request.Body.CopyToAsync(held, context.RequestAborted);
        if (held.Length > PictureDesk.MostBytes)
            return Problems.Of(StatusCodes.Status413PayloadTooLarge, $"A picture has up to {PictureDesk.MostBytes / 1024 / 1024} MB.");
        return desk.Take(number, held.ToArray(), new PictureWords(about ?? "", side ?? "", Words.Clean(caption)), OneTime.Of(context))
            .Match(taken => Results.Created($"{Root}/jobs/{number}", new AddedPicture(taken.Id)), Problems.Of);
    }

    private static IResult Stock(StockStore stock) =>
        Results.Ok(
            stock.List().Where(i => i.DeletedAt is null).Select(i => new StockShape(i.Id, i.Name, i.Bin, i.Count, i.Free, i.Low)).ToList()
        );

    private static IResult Export(HttpContext context, ShopDatabase database, ServeOptions options, AccessLog log)
    {
        // Beside the shop, where no other account of the machine looks.
        var folder = Path.Combine(options.DataDirectory, "export-" + Guid.NewGuid().ToString("N"));
        var file = folder + ".zip";
        try
        {
            ShopTransfer.Export(database, folder);
            ZipFile.CreateFromDirectory(folder, file);
            log.Add(Acting.Now, "took the whole shop out", ShopDoor.Visitor(context).Address);
            // Gone from the folder as soon as it is open: nothing is left behind, whatever happens on the way.
            var stream = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.None, 81920, FileOptions.DeleteOnClose);
            return Results.Stream(stream, "application/zip", "mendro-export.zip");
        }
        finally
        {
            if (Directory.Exists(folder))
                Directory.Delete(folder, true);
        }
    }

    private static IResult Added(long number, Deed<FiledEntry> deed) =>
        deed.Match(filed => Results.Created($"{Root}/jobs/{number}", new AddedRecord(filed.Record)), Problems.Of);

    private static async Task<(T? Told, IResult? Wrong)> ReadAsync<T>(HttpContext context)
        where T : class
    {
        if (!context.Request.HasJsonContentType())
            return (null, Problems.Of(StatusCodes.Status415UnsupportedMediaType, "The body is JSON: application/json."));
        try
        {
            return (await JsonSerializer.DeserializeAsync<T>(context.Request.Body, Json, context.RequestAborted)
                ?? throw new JsonException("null"), null);
        }
        catch (JsonException ex)
        {
            return (null, Problems.Of(StatusCodes.Status400BadRequest, $"The body cannot be read{(ex.Path is { Length: > 1 } path ? $" at {path}" : "")}."));
        }
    }

    private static string Name(string property) =>
        property switch
        {
            "OwnerName" => "owner",
            "OwnerContact" => "contact",
            "ConditionNote" => "condition",
            "Profile" => "model",
            _ => char.ToLowerInvariant(property[0]) + property[1..],
        };
}
