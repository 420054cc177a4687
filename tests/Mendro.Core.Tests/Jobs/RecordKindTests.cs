using System.Text.Json;
using System.Text.Json.Nodes;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;
using Mendro.Core.Quantities;

namespace Mendro.Core.Tests.Jobs;

/// <summary>Every kind of record: its payload goes out and comes in, and nothing else of it is stored.</summary>
public class RecordKindTests
{
    public static TheoryData<RecordBody, string> Examples { get; } =
        new()
        {
            { new FunctionTrial("picture", false, "garbled", 3), """{"function":"picture","passed":false,"look":"garbled","starts":3}""" },
            {
                new ProbeReading(
                    "tp4",
                    ProbeOutcome.Abnormal,
                    new Reading(ReadingUnit.Volts, 0.02),
                    "missing",
                    "Nothing arrives here.",
                    "short"
                ),
                """{"probe":"tp4","outcome":"abnormal","reading":{"unit":"volts","value":0.02,"jumps":false}"""
                    + ""","verdict":"missing","reason":"Nothing arrives here.","caution":"short"}"""
            },
            { new MarkNoted("rattle"), """{"mark":"rattle"}""" },
            { new CauseSeen("switch", "dirty", true), """{"part":"switch","mode":"dirty","present":true}""" },
            { new RepairLogged("switch", "flush-switch", "cleaner"), """{"part":"switch","method":"flush-switch","used":"cleaner"}""" },
            { new ProvokeTrial("picture", Provocation.Warmed, false), """{"function":"picture","how":"warmed","changed":false}""" },
            {
                new SwapTrial("video", SwapResult.Flicker, ["main", "cable"], ["cable"], [new SwapPiece("g4", "Cable B", "test-cable")]),
                """{"function":"video","result":"flicker","chain":["main","cable"],"out":["cable"],"gear":[{"id":"g4","name":"Cable B","kind":"test-cable"}]}"""
            },
            {
                new CalculationFiled(
                    "starts",
                    "Run of starts",
                    "12 → 0.22",
                    new Dictionary<string, JsonElement> { ["n"] = JsonSerializer.SerializeToElement(12) },
                    null
                ),
                """{"calculator":"starts","name":"Run of starts","text":"12 → 0.22","inputs":{"n":12}}"""
            },
            { new AccessNoted(Mendro.Core.Profiles.AccessState.BoardOut), """{"state":"board-out"}""" },
            {
                new StepTaken("back", false, [new OddFastener("s3", FastenerState.Stripped)]),
                """{"stepId":"back","back":false,"odd":[{"id":"s3","state":"stripped"}]}"""
            },
            {
                new MaterialUsed(new Mendro.Core.Methods.SequenceStep("vinegar", "battery-contacts", 5), "springs"),
                """{"done":{"agent":"vinegar","surface":"battery-contacts","minutes":5},"on":"springs"}"""
            },
            {
                new ConsentGiven("auth", "isolate-auth", "Ilka Dorn", ConsentWay.Phone),
                """{"part":"auth","method":"isolate-auth","who":"Ilka Dorn","how":"phone"}"""
            },
            {
                new RungDone("edge", "edge", "alcohol", true, false),
                """{"part":"edge","ladder":"edge","rung":"alcohol","swabClean":true,"works":false}"""
            },
            { new OtherWork("polish-lens", true), """{"method":"polish-lens","held":true}""" },
            {
                new WiringNoted("port", [new WireLine("1", "5", "red", true)]),
                """{"part":"port","wires":[{"old":"1","new":"5","colour":"red","beeps":true}]}"""
            },
            {
                new CapacitorsFitted("main", ["C31", "C33"], "railcaps", "recap-one"),
                """{"board":"main","refdes":["C31","C33"],"part":"railcaps","method":"recap-one"}"""
            },
            {
                new CapacitorOut("main", "C31", "turned", 8.2e-6, 4.5, "high ESR"),
                """{"board":"main","refdes":"C31","way":"turned","farads":8.2E-06,"esrOhms":4.5,"verdict":"high ESR"}"""
            },
            { new PointNoted("main", "V62", "corroded"), """{"board":"main","point":"V62","state":"corroded"}""" },
            { new LineBeeped("main/U1-6", "main/U2-6", false, "Address 5"), """{"a":"main/U1-6","b":"main/U2-6","beeps":false,"line":"Address 5"}""" },
            { new BoardCracked("cart", [[0, 12], [30, 18.5]]), """{"board":"cart","line":[[0,12],[30,18.5]]}""" },
            {
                new WireLaid("Address 5", "main/U1-6", "main/U2-6", "top", 32.1, "wrap-30", [[1, 2], [3, 4]]),
                """{"line":"Address 5","from":"main/U1-6","to":"main/U2-6","side":"top","cutMm":32.1,"wire":"wrap-30","path":[[1,2],[3,4]]}"""
            },
            { new WireChecked("main/U1-6", "main/U2-6", true), """{"from":"main/U1-6","to":"main/U2-6","holds":true}""" },
            {
                new StartRunFiled(
                    "start-up",
                    15,
                    0,
                    SequentialDecision.Accept,
                    new SequentialTest(0.02, 0.2, 0.05, 0.05),
                    [new StartsUnder("cold", 15, 0)]
                ),
                "{\"function\":\"start-up\",\"starts\":15,\"failures\":0,\"decision\":\"accept\","
                    + "\"limits\":{\"accept\":0.02,\"refuse\":0.2,\"alpha\":0.05,\"beta\":0.05},"
                    + "\"under\":[{\"condition\":\"cold\",\"starts\":15,\"failures\":0}]}"
            },
            {
                new TestDone("check:slot2", "Second card slot", false, "cartridge"),
                """{"item":"check:slot2","name":"Second card slot","passed":false,"function":"cartridge"}"""
            },
            {
                new FaultKept("function:speaker", "Speaker", KeepReason.WaitingPart, "cone on order"),
                """{"item":"function:speaker","name":"Speaker","reason":"waiting-part","words":"cone on order"}"""
            },
            {
                new SoakRun("picture", 20, 12.5, [new Interruption(12.5, "went dark")]),
                """{"function":"picture","planned":20,"played":12.5,"interruptions":[{"minute":12.5,"words":"went dark"}]}"""
            },
            {
                new ColourMeasured("ab", [80, 1, 4], [75, 3, 22], true, 17.4),
                """{"picture":"ab","inside":[80,1,4],"outside":[75,3,22],"card":true,"deltaE":17.4}"""
            },
            {
                new QuoteGiven(20, 35.5m, 90, "EUR", "renew the switch", ConsentWay.Phone),
                """{"low":20,"likely":35.5,"high":90,"currency":"EUR","works":"renew the switch","how":"phone"}"""
            },
            {
                new FinalPrice(20, "EUR", PriceReason.Discount, null, "a regular"),
                """{"price":20,"currency":"EUR","reason":"discount","words":"a regular"}"""
            },
            {
                new QuoteAnswered(true, 60, "EUR", "Ilka Dorn", ConsentWay.Writing),
                """{"approved":true,"upTo":60,"currency":"EUR","who":"Ilka Dorn","how":"writing","words":""}"""
            },
            {
                new OwnerTold(OwnerMatter.Ready, "Ilka Dorn", ConsentWay.InPerson, "comes on Friday"),
                """{"matter":"ready","who":"Ilka Dorn","how":"in-person","words":"comes on Friday"}"""
            },
            {
                new PartUsed("fuse 2 A", 3, "B2"),
                """{"part":"fuse 2 A","count":3,"bin":"B2"}"""
            },
            {
                new HandedOver("Ilka Dorn", new DateOnly(2027, 5, 1)),
                """{"to":"Ilka Dorn","warrantyUntil":"2027-05-01"}"""
            },
            { new WordsKept("Fuse, far side: 0 V", "Harrow Quartet"), """{"words":"Fuse, far side: 0 V","model":"Harrow Quartet"}""" },
            { new TemporaryThing("supply leads", false), """{"what":"supply leads","off":false}""" },
            { new SupplyDraw(6, 0.082, 0.5, "usual", null), """{"volts":6,"amps":0.082,"limitAmps":0.5,"meaning":"usual"}""" },
        };

    [Theory]
    [MemberData(nameof(Examples))]
    public void A_payload_is_written_as_documented_and_read_back(RecordBody body, string json)
    {
        var written = RecordKinds.Write(body);
        JsonNode.DeepEquals(JsonNode.Parse(written), JsonNode.Parse(json)).ShouldBeTrue(written);
        var back = RecordKinds.Read(body.Key, body.PayloadVersion, written);
        back.GetType().ShouldBe(body.GetType());
        RecordKinds.Write(back).ShouldBe(written);
    }

    [Fact]
    public void Every_kind_has_an_example_here() => Examples.Select(e => e.Data.Item1.Key).ShouldBe(RecordKinds.Keys, ignoreOrder: true);

    [Theory]
    [InlineData("hologram", 1, """{"depth":7}""")]
    [InlineData("function", 2, """{"function":"picture"}""")]
    [InlineData("function", 1, "not json")]
    [InlineData("function", 1, "[]")]
    [InlineData("probe", 1, """{"outcome":"purple"}""")]
    public void What_cannot_be_read_is_kept_and_never_thrown(string key, int version, string payload)
    {
        var body = RecordKinds.Read(key, version, payload);
        body.ShouldBe(new UnknownRecord(key, version, payload));
        (RecordKinds.Write(body), body.Key, body.PayloadVersion).ShouldBe((payload, key, version));
        body.ToEvent(1).ShouldBeNull();
        var model = Shipped.Model("harrow-quartet");
        body.Title(model, "").ShouldNotBeEmpty();
        body.Value(model).ShouldBeEmpty();
    }

    [Fact]
    public void A_record_about_a_part_that_is_gone_from_the_profile_is_still_shown()
    {
        var model = Shipped.Model("harrow-quartet");
        foreach (var body in Examples.Select(e => e.Data.Item1))
        {
            var record = BenchRecord.Of(body, model, WorkStage.Find, default);
            record.Words.ShouldNotBeEmpty();
            body.Title(model, record.Words).ShouldNotBeEmpty();
            body.Small(model, record).ShouldNotBeNull();
            body.After(model, Mendro.Core.Profiles.AccessState.Closed).ShouldBeOneOf(Enum.GetValues<Mendro.Core.Profiles.AccessState>());
        }
    }
}
