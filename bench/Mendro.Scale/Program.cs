using System.Globalization;
using Mendro.Scale;

// fill DIR JOBS makes a shop of that many jobs; measure URL DIR times its pages over HTTP, together URL DIR
// eight benches that are signed in, and two hundred browsers that only listen.
CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
switch (args)
{
    case ["fill", var folder, var jobs]:
        new ShopFiller(folder).Fill(int.Parse(jobs, CultureInfo.InvariantCulture));
        return 0;
    case ["measure", var address, var folder, .. var rest]:
        return await new PageTimes(new Uri(address), folder, rest.Length > 0 ? rest[0] : "").Run();
    case ["together", var address, var folder]:
        return await new PageTimes(new Uri(address), folder, "signed in").Together();
    default:
        Console.Error.WriteLine("fill DIR JOBS | measure URL DIR [LABEL] | together URL DIR");
        return 2;
}
