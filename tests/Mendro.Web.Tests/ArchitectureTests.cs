using Mendro.Core.Diagnosis;
using Mendro.Storage;
using NetArchTest.Rules;

namespace Mendro.Web.Tests;

/// <summary>Arrows run one way: Web and Cli to Storage and StandIns, those to Core, and Core to nothing.</summary>
public class ArchitectureTests
{
    [Fact]
    public void Core_knows_no_interface_no_storage_and_no_files()
    {
        var result = Types.InAssembly(typeof(DeviceModel).Assembly).ShouldNot()
            .HaveDependencyOnAny("Mendro.Storage", "Mendro.Web", "Mendro.Cli", "Mendro.StandIns", "Microsoft.AspNetCore", "Microsoft.Data.Sqlite", "Dapper", "System.IO.File", "System.Net", "System.Diagnostics.Stopwatch")
            .GetResult();
        result.IsSuccessful.ShouldBeTrue(string.Join(", ", result.FailingTypeNames ?? []));
    }

    [Fact]
    public void Storage_knows_core_only()
    {
        var result = Types.InAssembly(typeof(ShopDatabase).Assembly).ShouldNot()
            .HaveDependencyOnAny("Mendro.Web", "Mendro.Cli", "Mendro.StandIns", "Microsoft.AspNetCore").GetResult();
        result.IsSuccessful.ShouldBeTrue(string.Join(", ", result.FailingTypeNames ?? []));
    }

    [Fact]
    public void Inside_core_profiles_know_nothing_of_diagnosis_and_diagnosis_nothing_of_money()
    {
        var core = typeof(DeviceModel).Assembly;
        Types.InAssembly(core).That().ResideInNamespace("Mendro.Core.Profiles").ShouldNot()
            .HaveDependencyOnAny("Mendro.Core.Diagnosis", "Mendro.Core.Money", "Mendro.Core.Planning").GetResult().IsSuccessful.ShouldBeTrue();
        Types.InAssembly(core).That().ResideInNamespace("Mendro.Core.Diagnosis").ShouldNot()
            .HaveDependencyOnAny("Mendro.Core.Money", "Mendro.Core.Planning", "Mendro.Core.Proving", "Mendro.Core.Readings", "Mendro.Core.Calculators", "Mendro.Core.Electrical").GetResult().IsSuccessful.ShouldBeTrue();
        Types.InAssembly(core).That().ResideInNamespace("Mendro.Core.Electrical").ShouldNot()
            .HaveDependencyOnAny("Mendro.Core.Diagnosis", "Mendro.Core.Readings", "Mendro.Core.Calculators").GetResult().IsSuccessful.ShouldBeTrue();
        Types.InAssembly(core).That().ResideInNamespace("Mendro.Core.Quantities").ShouldNot()
            .HaveDependencyOnAny("Mendro.Core.Diagnosis", "Mendro.Core.Profiles", "Mendro.Core.Methods").GetResult().IsSuccessful.ShouldBeTrue();
    }
}
