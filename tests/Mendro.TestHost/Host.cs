using System.Globalization;
using System.Text.Json;

namespace Mendro.TestHost;

/// <summary>
/// Many shops in one process, opened and closed as the browser tests ask: what the first has compiled all others use. A line in is
/// “open” with the server's own words as a JSON list, or “close” with the number of a shop; each is answered by one line of JSON
/// behind a mark, for the shops say their own things on the same output. The process ends when its input does.
/// </summary>
internal static class Host
{
    private const string Mark = "\u0001";

    private static async Task Main()
    {
        var shops = new Dictionary<int, OpenShop>();
        var opened = 0;
        OpenShop.HearOfHosts();
        while (await Console.In.ReadLineAsync() is { } line)
        {
            var (word, rest) = line.Split(' ', 2) is [var first, var second] ? (first, second) : (line, "");
            try
            {
                if (word == "open")
                {
                    shops[++opened] = await OpenShop.Open(JsonSerializer.Deserialize<string[]>(rest)!);
                    Answer(new { shop = opened });
                }
                else if (word == "close" && shops.Remove(int.Parse(rest, CultureInfo.InvariantCulture), out var shop))
                {
                    await shop.Close();
                    Answer(new { closed = rest });
                }
                else
                    Answer(new { failed = $"“{line}” is not understood." });
            }
            catch (Exception problem)
            {
                Answer(new { failed = problem.ToString() });
            }
        }
    }

    private static void Answer(object what) => Console.WriteLine(Mark + JsonSerializer.Serialize(what));
}
