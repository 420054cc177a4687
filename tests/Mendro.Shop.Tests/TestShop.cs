using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Mendro.Instruments;
using Mendro.Storage;
using Mendro.Tests.Shared;
using Microsoft.Extensions.Time.Testing;

namespace Mendro.Shop.Tests;

/// <summary>A whole shop below the pages, in a real SQLite file of its own.</summary>
public sealed class TestShop : IDisposable
{
    private readonly string _folder = Path.Combine(Path.GetTempPath(), "mendro-shop-" + Guid.NewGuid().ToString("N"));

    public TestShop()
    {
        Database = PreparedShop.In(_folder);
        Profiles = new ProfileStore(Database, Time);
        Settings = new SettingsStore(Database);
        Jobs = new JobStore(Database, Time);
        Records = new BenchRecordStore(Database, Time);
        Moves = new ModelMoveStore(Database, Time);
        Models = new ModelShelf(Profiles, TradeLibrary.Shipped);
        Ledger = new Ledger(Database, new ActionStore(Database, Time));
        Experience = new ShopExperience(
            new LessonStore(Database, Time),
            new GearStore(Database, Time),
            Settings,
            new RevisionStore(Database),
            Models,
            TradeLibrary.Shipped
        );
        Desk = new BenchDesk(Models, Records, Settings, Experience);
        var bench = new JobBench(Jobs, Records, Models, Ledger, Time);
        Practice = new PracticeDesk(Jobs, Records, Models, Settings, bench, Ledger, Time);
        SecondLooks = new SecondLookDesk(
            Jobs,
            Records,
            new SecondLookStore(Database, Time),
            new LessonStore(Database, Time),
            Database,
            Experience,
            Models,
            Settings,
            bench
        );
        StockRows = new StockStore(Database, Time);
        Donors = new DonorStore(Database, Time);
        Readings = new ReadingDesk(bench, Records, Practice, new PartsBack(StockRows, Donors));
        Forecasts = new ForecastStore(Database, Time);
        Repairs = new RepairDesk(
            bench,
            Records,
            new RunStore(Database),
            Practice,
            new SecondLookStore(Database, Time),
            Forecasts,
            Desk,
            Time
        );
        Door = new DoorWords(Settings, Profiles, Ledger, TradeLibrary.Shipped);
        Intake = new IntakeDesk(Jobs, Records, Profiles, Models, Moves, Settings, bench, TradeLibrary.Shipped, Door, Ledger, Time);
        ModelChanges = new ModelChangeDesk(Profiles, Moves, Jobs, Records, Models, bench, Door, TradeLibrary.Shipped);
        Teachings = new TeachingStore(Database, Time);
        Teach = new TeachDesk(Jobs, Profiles, Teachings, Records, bench, TradeLibrary.Shipped);
        ModelDesk = new ModelDesk(Profiles, Moves, Records, Models, bench, Ledger, TradeLibrary.Shipped);
        Timers = new TimerDesk(new TimerStore(Database), Jobs, Ledger, Time);
        Runs = new RunDesk(bench, new RunStore(Database), Records, Repairs, Timers, Ledger, TradeLibrary.Shipped, Time);
        Capacitors = new CapacitorStore(Database, Time);
        Fits = new FitDesk(Capacitors);
        Stock = new StockDesk(StockRows, bench, Settings, Ledger);
        Recap = new RecapDesk(bench, Jobs, Capacitors, Fits, Desk, Stock, Ledger, TradeLibrary.Shipped);
        var traces = new TraceStore(Database, Time);
        Traces = new TraceDesk(bench, traces, Capacitors, Records, Desk);
        Starts = new StartsDesk(bench, new StartRunStore(Database, Settings, Time));
        Prove = new ProveDesk(bench, Readings, Timers, new SoakStore(Database, Time), new GoodReadingStore(Database, Time), Time);
        PictureFiles = new PictureFiles(_folder);
        PictureRows = new PictureStore(Database, Time);
        Pictures = new PictureDesk(bench, PictureRows, PictureFiles);
        Jumpers = new JumperDesk(bench, traces, Traces, Desk);
        Sales = new SaleStore(Database, Time);
        HandOver = new HandOverDesk(
            bench,
            Jobs,
            Records,
            new GoodReadingStore(Database, Time),
            Sales,
            Donors,
            new ShelfStore(Database, Time),
            Settings
        );
        MoneyRows = new MoneyStore(Database, Time);
        Journal = new JournalStore(Database, Time);
        Costs = new CostDesk(MoneyRows, Journal, Settings, Time);
        People = new PeopleDesk(new OwnerStore(Database, Time), Settings, bench, Ledger, Time);
        Purchases = new PurchaseDesk(new PurchaseStore(Database, Time), Jobs, new LotStore(Database, Time), Settings, Ledger, Time);
        FinalPrices = new FinalPriceDesk(bench, new OwnerStore(Database, Time), Jobs, Records);
        Owners = new OwnerDesk(bench, Jobs, Records, Costs, Time);
        Papers = new PaperDesk(Runs, Costs, Settings, Sales, Time);
        Sale = new SaleDesk(bench, Sales, Costs, Settings, Papers, Door, Ledger);
        LotRows = new LotStore(Database, Time);
        Lots = new LotDesk(
            LotRows,
            Sales,
            Forecasts,
            Desk,
            bench,
            Models,
            Settings,
            TradeLibrary.Shipped,
            Ledger
        );
        LotItems = new LotItemsDesk(LotRows, bench, Intake, Models, Profiles, TradeLibrary.Shipped, Door, Ledger);
        LotCorrections = new LotCorrectDesk(LotRows, LotItems, Jobs, bench, HandOver, ModelChanges, Profiles, Ledger);
        OrderRows = new OrderStore(Database, Time);
        Books = new BookKeeper(Database, Journal, MoneyRows, Sales, LotRows, StockRows, OrderRows, Records, Settings, Time);
        var link = new SupplierLink(Patience, Time);
        var shelves = new ShelfStore(Database, Time);
        Orders = new OrderDesk(OrderRows, StockRows, shelves, Settings, link, Ledger, Time);
        Arrivals = new ArrivalDesk(OrderRows, StockRows, Stock, shelves, HandOver, Jobs, Settings, MoneyRows, Ledger, Time);
        Suppliers = new SupplierDesk(OrderRows, link, Ledger, Time);
        DonorParts = new DonorDesk(Donors, Jobs, bench, Ledger);
        Money = new MoneyDesk(MoneyRows, Journal, Books, Jobs, Records, bench, Settings, Ledger, Time);
        Bills = new BillDesk(new BillStore(Database, Time), bench, Desk, Money, Costs, Settings);
        OwnerData = new OwnerData(
            new OwnerStore(Database, Time),
            Records,
            PictureRows,
            PictureFiles,
            MoneyRows,
            new BillStore(Database, Time),
            StockRows,
            new ErasedPeople(_folder),
            new Timeline(Database),
            Ledger
        );
        LastCalls = new LastCallsDesk(Owners, Money, HandOver, new ShelfStore(Database, Time), Costs);
        Swaps = new SwapDesk(bench, Jobs, new GearStore(Database, Time), Models, Practice);
        Apart = new ApartDesk(bench, Records);
        Rounds = new RoundDesk(Repairs, Readings, new RoundStore(Database, Time), Jobs, LotRows, Forecasts, Desk, Ledger);
        Bundles = new BundleDesk(Sale, HandOver, Desk, Jobs, Sales, Ledger);
        Batches = new BatchDesk(Owners, LastCalls, HandOver, Money, Ledger);
        OfferRows = new OfferStore(Database, Time);
        Offers = new OfferDesk(OfferRows, Forecasts, Records, Models, Settings, Sale, Door, Ledger);
    }

    /// <summary>How long a supplier is waited for, by the shop's own clock.</summary>
    public static TimeSpan Patience { get; } = TimeSpan.FromSeconds(2);

    public FakeTimeProvider Time { get; } = new(PreparedShop.MadeAt);

    public CostDesk Costs { get; }

    public PeopleDesk People { get; }

    public PurchaseDesk Purchases { get; }

    public FinalPriceDesk FinalPrices { get; }

    public LastCallsDesk LastCalls { get; }

    public SwapDesk Swaps { get; }

    public ApartDesk Apart { get; }

    public ShopDatabase Database { get; }

    public ProfileStore Profiles { get; }

    public SettingsStore Settings { get; }

    public JobStore Jobs { get; }

    public BenchRecordStore Records { get; }

    public ModelShelf Models { get; }

    public CapacitorStore Capacitors { get; }

    public FitDesk Fits { get; }

    public RecapDesk Recap { get; }

    public TraceDesk Traces { get; }

    public JumperDesk Jumpers { get; }

    public StartsDesk Starts { get; }

    public ProveDesk Prove { get; }

    public PictureFiles PictureFiles { get; }

    public PictureStore PictureRows { get; }

    public PictureDesk Pictures { get; }

    public SaleStore Sales { get; }

    public DonorStore Donors { get; }

    public OwnerDesk Owners { get; }

    public OwnerData OwnerData { get; }

    public PaperDesk Papers { get; }

    public SaleDesk Sale { get; }

    public ForecastStore Forecasts { get; }

    public LotStore LotRows { get; }

    public LotDesk Lots { get; }

    public LotItemsDesk LotItems { get; }

    public LotCorrectDesk LotCorrections { get; }

    public BatchDesk Batches { get; }

    public BundleDesk Bundles { get; }

    public RoundDesk Rounds { get; }

    public OfferStore OfferRows { get; }

    public StockStore StockRows { get; }

    public StockDesk Stock { get; }

    public OrderStore OrderRows { get; }

    public OrderDesk Orders { get; }

    public ArrivalDesk Arrivals { get; }

    public SupplierDesk Suppliers { get; }

    public MoneyStore MoneyRows { get; }

    public JournalStore Journal { get; }

    public BookKeeper Books { get; }

    public BillDesk Bills { get; }

    public MoneyDesk Money { get; }

    public DonorDesk DonorParts { get; }

    public OfferDesk Offers { get; }

    public string Folder => _folder;

    public Ledger Ledger { get; }

    public ShopExperience Experience { get; }

    public BenchDesk Desk { get; }

    public PracticeDesk Practice { get; }

    public SecondLookDesk SecondLooks { get; }

    public ReadingDesk Readings { get; }

    public RepairDesk Repairs { get; }

    public IntakeDesk Intake { get; }

    public DoorWords Door { get; }

    public ModelChangeDesk ModelChanges { get; }

    public HandOverDesk HandOver { get; }

    public TeachingStore Teachings { get; }

    public TeachDesk Teach { get; }

    public TimerDesk Timers { get; }

    public RunDesk Runs { get; }

    public ModelMoveStore Moves { get; }

    public ModelDesk ModelDesk { get; }

    public JobView View(long number) => Desk.Open(Jobs.Find(number)!);

    /// <summary>Takes a unit in with a function that fails, or with none tried.</summary>
    public long TakeIn(string profile = "harrow-quartet", string? fails = null, string? owner = "Ilka Dorn", string contact = "") =>
        Intake
            .TakeIn(
                new IntakeOrder(
                    new Job
                    {
                        ProfileId = profile,
                        Currency = "EUR",
                        Claim = "dead",
                    },
                    owner,
                    contact,
                    [],
                    fails is null ? [] : [new BaselineTrial(fails, false, "nothing")]
                )
            )
            .Done!.Number;

    /// <summary>Tries every function once, all passing.</summary>
    public void AllWork(long number, bool proving = false)
    {
        foreach (var function in View(number).Profile.Functions)
            Readings.Try(new TrialOrder(number, function.Id, true, Proving: proving)).Done.ShouldNotBeNull();
    }

    public void Try(long number, FunctionId function, bool passed) =>
        Readings.Try(new TrialOrder(number, function, passed)).Done.ShouldNotBeNull();

    /// <summary>Files a record as it is.</summary>
    public void File(long number, RecordBody body)
    {
        var job = Jobs.Find(number)!;
        Records.Add(BenchRecord.Of(body, Models.Of(job), WorkStage.Fix, Time.GetUtcNow()) with { JobId = job.Id });
    }

    public void Dispose()
    {
        Fits.Dispose();
        Desk.Dispose();
        PreparedShop.Discard(Database);
    }
}
