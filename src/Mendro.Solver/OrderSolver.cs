using Google.OrTools.LinearSolver;
using Mendro.Core.Stock;

namespace Mendro.Solver;

/// <summary>
/// Splits an order over suppliers: as much as can be had, then the least total with postage, proved by branch and bound on the linear
/// relaxation (SCIP, Bestuzheva et al., ACM TOMS 49, 2023); among equal totals the fewest suppliers. Nothing is bought that is not needed.
/// </summary>
public static class OrderSolver
{
    /// <summary>Solves a task.</summary>
    /// <param name="task">Task.</param>
    /// <param name="limit">Longest time; what is found by then is the answer, and says that it is not proved.</param>
    /// <exception cref="TimeoutException">Nothing at all was found in the time given.</exception>
    public static OrderPlan Solve(OrderTask task, TimeSpan limit)
    {
        var reach = task.Needs.ToDictionary(n => n.Part, task.Reach);
        using var solver = Google.OrTools.LinearSolver.Solver.CreateSolver("SCIP");
        var build = new Build(solver, task, reach);
        if (build.Taken.Count == 0)
            return new OrderPlan([], 0, task.Needs);
        // What cannot be had all the same, for least numbers to a price, costs more than everything together.
        var all = (double)build.Worth(1 + task.Suppliers.Sum(s => s.Postage + s.Offers.Sum(o => o.Price * reach.GetValueOrDefault(o.Part))), 0);
        foreach (var (part, most) in reach.Where(r => r.Value > 0))
        {
            var had = solver.MakeConstraint(most, most);
            foreach (var taken in build.Taken.Where(t => t.Offer.Part == part))
                had.SetCoefficient(taken.Count, 1);
            if (build.Taken.All(t => t.Offer.Part != part || t.Offer.From is null or 1))
                continue;
            var lost = solver.MakeIntVar(0, most, $"l {part}");
            had.SetCoefficient(lost, 1);
            solver.Objective().SetCoefficient(lost, all);
        }

        solver.Objective().SetMinimization();
        solver.SetTimeLimit((long)limit.TotalMilliseconds);
        using var exact = new MPSolverParameters();
        exact.SetDoubleParam(MPSolverParameters.DoubleParam.RELATIVE_MIP_GAP, 0);
        var status = solver.Solve(exact);
        if (status is not (Google.OrTools.LinearSolver.Solver.ResultStatus.OPTIMAL or Google.OrTools.LinearSolver.Solver.ResultStatus.FEASIBLE))
            throw new TimeoutException("No split was found in the time given.");
        var counts = build
            .Taken.Select(t => (t.Supplier, t.Offer, Count: (int)Math.Round(t.Count.SolutionValue())))
            .Where(t => t.Count > 0)
            .ToList();
        var lines = counts
            .GroupBy(c => (c.Supplier.Id, c.Offer.Part))
            .Select(g => new OrderLine(g.Key.Id, g.Key.Part, g.Sum(c => c.Count)))
            .ToList();
        // The sum is reckoned anew in decimals: what the solver calls free of postage by a hair of its tolerance must be so.
        var sum = task.Cost(counts.Select(c => (c.Supplier.Id, c.Offer.Price, c.Count)));
        var missing = task
            .Needs.Select(n => new OrderNeed(n.Part, n.Count - lines.Where(l => l.Part == n.Part).Sum(l => l.Count)))
            .Where(n => n.Count > 0)
            .ToList();
        var left = reach.Values.Sum() - lines.Sum(l => l.Count);
        var used = lines.Select(l => l.Supplier).Distinct().Count();
        var bound = Math.Ceiling(Math.Round(solver.Objective().BestBound(), 3));
        return new OrderPlan(lines, sum, missing, (double)build.Worth(sum, used) + left * all <= bound);
    }

    /// <summary>The task as a mixed integer programme, in whole numbers.</summary>
    private sealed class Build
    {
        private readonly decimal _scale;
        private readonly int _parcels;

        public Build(Google.OrTools.LinearSolver.Solver solver, OrderTask task, Dictionary<string, int> reach)
        {
            // So many digits as the prices have: small whole numbers are exact in the solver.
            var prices = task.Suppliers.SelectMany(s => s.Offers.Select(o => o.Price).Append(s.Postage).Append(s.FreeFrom ?? 0)).ToList();
            var digits = Enumerable.Range(0, OrderFile.MostDigits).FirstOrDefault(d => prices.All(p => decimal.Round(p, d) == p), OrderFile.MostDigits);
            _scale = (decimal)Math.Pow(10, digits);
            // A total counts more than all parcels together.
            _parcels = task.Suppliers.Count + 1;
            var n = 0;
            foreach (var supplier in task.Suppliers)
                Add(solver, supplier, reach, ref n);
        }

        /// <summary>How many are taken of each offer.</summary>
        public List<(OrderSupplier Supplier, SupplierOffer Offer, Variable Count)> Taken { get; } = [];

        /// <summary>What the solver minimises, for a total and a number of suppliers.</summary>
        public decimal Worth(decimal total, int used) => total * _scale * _parcels + used;

        private void Add(Google.OrTools.LinearSolver.Solver solver, OrderSupplier supplier, Dictionary<string, int> reach, ref int n)
        {
            var own = new List<(SupplierOffer Offer, Variable Count)>();
            var use = solver.MakeBoolVar($"u{++n}");
            foreach (var offer in supplier.Offers)
            {
                var most = Math.Min(reach.GetValueOrDefault(offer.Part), offer.Available ?? int.MaxValue);
                if (most <= 0 || offer.From > most)
                    continue;
                var count = solver.MakeIntVar(0, most, $"c{++n}");
                solver.Add(count <= most * use);
                if (offer.From > 1)
                {
                    var some = solver.MakeBoolVar($"q{++n}");
                    solver.Add(count >= (double)offer.From.Value * some);
                    solver.Add(count <= most * some);
                }

                solver.Objective().SetCoefficient(count, (double)Worth(offer.Price, 0));
                own.Add((offer, count));
            }

            // Quantity prices are prices of one and the same heap.
            foreach (var heap in own.Where(o => o.Offer.From is not null).GroupBy(o => o.Offer.Part).Where(g => g.Count() > 1))
            {
                var all = solver.MakeConstraint(0, heap.Max(o => Math.Min(reach[heap.Key], o.Offer.Available ?? int.MaxValue)));
                foreach (var (_, count) in heap)
                    all.SetCoefficient(count, 1);
            }

            solver.Objective().SetCoefficient(use, (double)Worth(supplier.Postage, 1));
            if (supplier.FreeFrom is { } free && supplier.Postage > 0)
            {
                var spared = solver.MakeBoolVar($"f{++n}");
                solver.Add(spared <= use);
                var goods = solver.MakeConstraint(0, double.PositiveInfinity);
                foreach (var (offer, count) in own)
                    goods.SetCoefficient(count, (double)(offer.Price * _scale));
                goods.SetCoefficient(spared, -(double)(free * _scale));
                solver.Objective().SetCoefficient(spared, -(double)Worth(supplier.Postage, 0));
            }

            Taken.AddRange(own.Select(o => (supplier, o.Offer, o.Count)));
        }
    }
}
