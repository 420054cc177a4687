using Mendro.Storage;

namespace Shouldly;

/// <summary>Whole lists, page by page as a person would turn them.</summary>
internal static class ListedJobs
{
    public static IReadOnlyList<Job> AllJobs(this ShopDatabase database) =>
        [.. database.Jobs(JobShelf.InShop).Concat(database.Jobs(JobShelf.Closed)).OrderByDescending(j => j.Number)];

    public static IReadOnlyList<Job> Jobs(this ShopDatabase database, JobShelf shelf) =>
        Turn(before => new JobLists(database).Page(shelf, null, before));

    public static IReadOnlyList<Job> Found(this ShopDatabase database, string text) =>
        Turn(before => new JobLists(database).Search(text, before));

    private static List<Job> Turn(Func<long?, JobPage> page)
    {
        var found = new List<Job>();
        for (long? before = null; ; )
        {
            var (jobs, next) = page(before);
            found.AddRange(jobs);
            if (next is null)
                return found;
            before = next;
        }
    }
}
