using Mendro.Core.Access;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Instruments;
using Mendro.Shop;
using Mendro.Shop.Demo;
using Mendro.Storage;
using Mendro.Web.Access;
using Mendro.Web.Live;

namespace Mendro.Web;

/// <summary>The house from the database to the use cases, as the web puts it together.</summary>
public static class ShopServices
{
    /// <summary>Adds everything that lies below the pages.</summary>
    /// <param name="services">Services.</param>
    /// <param name="options">How the server was asked to run.</param>
    public static void AddShop(this IServiceCollection services, ServeOptions options)
    {
        services.AddSingleton(options);
        services.AddSingleton(TimeProvider.System);
        // The shop changes methods of its own copy.
        services.AddSingleton(TradeLibrary.Shipped.Copy());
        services.AddSingleton(s => new ShopRoom(options.DataDirectory, s.GetRequiredService<TimeProvider>()));
        services.AddSingleton(s =>
        {
            var (database, room) = (new ShopDatabase(Path.Combine(options.DataDirectory, "shop.db")), s.GetRequiredService<ShopRoom>());
            database.NotWritten += room.Lost;
            database.Committed += room.Found;
            return database;
        });
        services.AddSingleton(new PictureFiles(options.DataDirectory));
        services.AddSingleton(new ErasedPeople(options.DataDirectory));
        foreach (
            var store in (Type[])
                [
                    typeof(JobStore),
                    typeof(JobLists),
                    typeof(BenchRecordStore),
                    typeof(ProfileStore),
                    typeof(SettingsStore),
                    typeof(Timeline),
                    typeof(GearStore),
                    typeof(LessonStore),
                    typeof(SecondLookStore),
                    typeof(TeachingStore),
                    typeof(GoodReadingStore),
                    typeof(ContactMarkStore),
                    typeof(StandInTruthStore),
                    typeof(ActionStore),
                    typeof(RevisionStore),
                    typeof(ModelMoveStore),
                    typeof(TimerStore),
                    typeof(RunStore),
                    typeof(MethodStore),
                    typeof(CapacitorStore),
                    typeof(TraceStore),
                    typeof(StartRunStore),
                    typeof(SoakStore),
                    typeof(PictureStore),
                    typeof(SaleStore),
                    typeof(DonorStore),
                    typeof(ShelfStore),
                    typeof(OwnerStore),
                    typeof(LotStore),
                    typeof(RoundStore),
                    typeof(ForecastStore),
                    typeof(OfferStore),
                    typeof(StockStore),
                    typeof(OrderStore),
                    typeof(MoneyStore),
                    typeof(JournalStore),
                    typeof(BillStore),
                    typeof(PurchaseStore),
                    typeof(DayStore),
                    typeof(LookBackStore),
                    typeof(AccountStore),
                    typeof(SessionStore),
                    typeof(CodeStore),
                    typeof(AccessLog),
                    typeof(ProgramStore),
                    typeof(HookStore),
                ]
        )
            services.AddSingleton(store);
        foreach (
            var desk in (Type[])
                [
                    typeof(Ledger),
                    typeof(AccountDesk),
                    typeof(SignInDesk),
                    typeof(ProgramDesk),
                    typeof(ModelShelf),
                    typeof(ShopExperience),
                    typeof(BenchDesk),
                    typeof(JobBench),
                    typeof(PracticeDesk),
                    typeof(PartsBack),
                    typeof(ReadingDesk),
                    typeof(RepairDesk),
                    typeof(SecondLookDesk),
                    typeof(LotDesk),
                    typeof(LotItemsDesk),
                    typeof(LotCorrectDesk),
                    typeof(BatchDesk),
                    typeof(BatchPaper),
                    typeof(BundleDesk),
                    typeof(RoundDesk),
                    typeof(OfferDesk),
                    typeof(StockDesk),
                    typeof(OrderDesk),
                    typeof(ArrivalDesk),
                    typeof(SupplierDesk),
                    typeof(BookKeeper),
                    typeof(MoneyDesk),
                    typeof(BillDesk),
                    typeof(CostDesk),
                    typeof(PeopleDesk),
                    typeof(PurchaseDesk),
                    typeof(FinalPriceDesk),
                    typeof(DayPlanner),
                    typeof(DayDesk),
                    typeof(CalendarDesk),
                    typeof(LookBackDesk),
                    typeof(TeachDesk),
                    typeof(ModelDesk),
                    typeof(ModelChangeDesk),
                    typeof(DoorWords),
                    typeof(ApartDesk),
                    typeof(TimerDesk),
                    typeof(RunDesk),
                    typeof(MeanwhileDesk),
                    typeof(LadderDesk),
                    typeof(LastCallsDesk),
                    typeof(FitDesk),
                    typeof(RecapDesk),
                    typeof(TraceDesk),
                    typeof(StartsDesk),
                    typeof(ProveDesk),
                    typeof(PictureDesk),
                    typeof(OwnerDesk),
                    typeof(PaperDesk),
                    typeof(SaleDesk),
                    typeof(DonorDesk),
                    typeof(OwnerData),
                    typeof(JumperDesk),
                    typeof(MethodDesk),
                    typeof(ProbeGainDesk),
                    typeof(BenchRefresher),
                    typeof(IntakeDesk),
                    typeof(SwapDesk),
                    typeof(ContactDesk),
                    typeof(HandOverDesk),
                    typeof(CalculationDesk),
                    typeof(DemoWorld),
                ]
        )
            services.AddSingleton(desk);
        services.AddSingleton(s => new BenchMeter(
            () => s.GetRequiredService<SettingsStore>().Get().Meter,
            s.GetRequiredService<TimeProvider>(),
            s.GetRequiredService<ILogger<BenchMeter>>(),
            Patience(s)
        ));
        services.AddSingleton(s => new BenchSupply(
            () => s.GetRequiredService<SettingsStore>().Get().Supply,
            s.GetRequiredService<TimeProvider>(),
            s.GetRequiredService<ILogger<BenchSupply>>(),
            Patience(s)
        ));
        services.AddSingleton(s => new SupplierLink(Patience(s) ?? SupplierLink.UsualPatience));
        services.AddSingleton(s => new HookLink(Patience(s) ?? HookLink.UsualPatience));
        services.AddSingleton<DemoSuppliers>();
        services.AddSingleton<StandInHand>();
        services.AddSingleton<IBenchHand>(s => options.Demo ? s.GetRequiredService<StandInHand>() : new NoHand());
        services.AddSingleton<IPasswordKeeper, PasswordKeeper>();
        services.AddSingleton<ISecretKeeper, SecretKeeper>();
        services.AddSingleton<SecondFactorDesk>();
        services.AddSingleton<GuessGuard>();
        services.AddSingleton<FirstOwner>();
        services.AddSingleton<ShopDoor>();
        services.AddScoped(s => Viewer.Of(s.GetRequiredService<IHttpContextAccessor>().HttpContext));
        services.AddHttpContextAccessor();
        services.AddSingleton<EventStreams>();
        services.AddSingleton<EventEndpoint>();
        services.AddSingleton<MeterTurns>();
        services.AddSingleton<MeterDesk>();
        services.AddHostedService(s => s.GetRequiredService<MeterDesk>());
        services.AddSingleton<Presence>();
        services.AddHostedService(s => s.GetRequiredService<Presence>());
        services.AddHostedService<ShopNews>();
        services.AddHostedService<ShelfKeeper>();
        services.AddSingleton<ShopCalendar>();
        services.AddSingleton(s => new DailyBackup(
            options.DataDirectory,
            () => s.GetRequiredService<ShopCalendar>().Today,
            s.GetRequiredService<TimeProvider>()
        ));
    }

    // A slow range of a slow instrument may need more than is usual: Instruments__PatienceSeconds in the environment.
    private static TimeSpan? Patience(IServiceProvider services) =>
        services.GetRequiredService<IConfiguration>().GetValue<double?>("Instruments:PatienceSeconds") is > 0 and <= 60 and var seconds
            ? TimeSpan.FromSeconds(seconds)
            : null;
}
