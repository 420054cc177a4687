using MathNet.Numerics.LinearAlgebra;

namespace Mendro.StandIns.Physics;

/// <summary>
/// A network of resistors, real voltage sources and current loads, solved by nodal analysis: at every node the currents sum to zero
/// (Kirchhoff). Sources are taken as their Norton equivalents. Node 0 is ground.
/// </summary>
public sealed class NodalCircuit
{
    // Keeps a node that hangs on nothing at ground instead of making the equations singular.
    private const double LeakSiemens = 1e-9;

    private readonly List<(int A, int B, double Siemens)> _resistors = [];
    private readonly List<(int Node, double Amps)> _injected = [];

    /// <summary>Number of nodes, ground included.</summary>
    public int Nodes { get; private set; } = 1;

    /// <summary>Adds a node.</summary>
    public int AddNode() => Nodes++;

    /// <summary>Adds a resistor.</summary>
    /// <param name="a">Node.</param>
    /// <param name="b">Other node.</param>
    /// <param name="ohms">Resistance, ohms, above 0.</param>
    public void AddResistor(int a, int b, double ohms)
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(ohms);
        _resistors.Add((a, b, 1 / ohms));
    }

    /// <summary>Adds a voltage source with its inner resistance from ground to a node.</summary>
    /// <param name="node">Node.</param>
    /// <param name="volts">Open-circuit voltage, volts.</param>
    /// <param name="ohms">Inner resistance, ohms, above 0.</param>
    public void AddSource(int node, double volts, double ohms)
    {
        AddResistor(node, 0, ohms);
        _injected.Add((node, volts / ohms));
    }

    /// <summary>Adds a current that flows into a node, amperes; negative for a load.</summary>
    public void AddCurrent(int node, double amps) => _injected.Add((node, amps));

    /// <summary>Voltages of all nodes against ground, volts.</summary>
    public double[] Solve()
    {
        var n = Nodes - 1;
        if (n == 0)
            return [0];
        var g = Matrix<double>.Build.Dense(n, n);
        var i = Vector<double>.Build.Dense(n);
        for (var k = 0; k < n; k++)
            g[k, k] = LeakSiemens;
        foreach (var (a, b, siemens) in _resistors)
        {
            if (a > 0)
                g[a - 1, a - 1] += siemens;
            if (b > 0)
                g[b - 1, b - 1] += siemens;
            if (a > 0 && b > 0)
            {
                g[a - 1, b - 1] -= siemens;
                g[b - 1, a - 1] -= siemens;
            }
        }

        foreach (var (node, amps) in _injected.Where(x => x.Node > 0))
            i[node - 1] += amps;
        return [0, .. g.Solve(i)];
    }
}
