namespace Mendro.Core.Scheduling;

/// <summary>Plans by an order: what is first in it is put down first, each as early as can be; see <see cref="OrderDecoder"/>.</summary>
public static class ListOrder
{
    /// <summary>Plans in the order of the tasks; one that comes after another waits for it.</summary>
    public static WorkPlan Plan(Workload load) => Plan(load, Enumerable.Range(0, load.Tasks.Count).ToList());

    /// <summary>Plans in an order.</summary>
    /// <param name="load">Workload, without circles.</param>
    /// <param name="order">Indexes of all of its tasks, the most urgent first.</param>
    public static WorkPlan Plan(Workload load, IReadOnlyList<int> order) => Of(load, new OrderDecoder(load).Starts(order), optimal: false);

    /// <summary>The plan of known starts, with a person for each active task.</summary>
    /// <param name="load">Workload.</param>
    /// <param name="starts">Start of each task, in their order.</param>
    /// <param name="optimal">True when no plan is better.</param>
    public static WorkPlan Of(Workload load, IReadOnlyList<double> starts, bool optimal)
    {
        var free = new double[Math.Max(1, load.People)];
        Array.Fill(free, double.MinValue);
        var tasks = load.Tasks;
        var person = new int?[tasks.Count];
        foreach (var n in Enumerable.Range(0, tasks.Count).Where(n => !tasks[n].Passive).OrderBy(n => starts[n]).ThenBy(n => tasks[n].Minutes))
        {
            // Of those who are free the one who was busy last goes on: fewer hands at fewer places.
            var who = Enumerable
                .Range(0, free.Length)
                .Where(h => free[h] <= starts[n] + 1e-9)
                .OrderByDescending(h => free[h])
                .ThenBy(h => h)
                .FirstOrDefault(Array.IndexOf(free, free.Min()));
            if (tasks[n].Minutes > 0)
                free[who] = starts[n] + tasks[n].Minutes;
            person[n] = who + 1;
        }

        var planned = tasks.Select((t, n) => new PlannedTask(t.Id, starts[n], starts[n] + t.Minutes, person[n])).ToList();
        return new WorkPlan(planned, load.Objective(starts), optimal);
    }
}
