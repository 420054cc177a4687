using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;

namespace Mendro.Shop;

/// <summary>All that the reasoning about a unit rests on: its model, what the shop knows, and what was seen, in its order. Two units for
/// which it is the same have the same verdict, advice and proof; moments, minutes and words of their records are their own.</summary>
internal sealed class UnitAlike : IEquatable<UnitAlike>
{
    private readonly DeviceModel _model;
    private readonly string _shop;
    private readonly string _learned;
    private readonly IReadOnlyList<RecordBody> _seen;
    private readonly int _hash;

    /// <summary>Gathers it.</summary>
    /// <param name="model">Model.</param>
    /// <param name="shop">Values, hour and settings, as text.</param>
    /// <param name="learned">What the shop learned that bears on it, as text.</param>
    /// <param name="records">Records of the unit.</param>
    public UnitAlike(DeviceModel model, string shop, string learned, IReadOnlyList<BenchRecord> records)
    {
        (_model, _shop, _learned, _seen) = (model, shop, learned, records.Select(r => r.Body).ToList());
        var hash = new HashCode();
        hash.Add(shop);
        hash.Add(learned);
        foreach (var body in _seen)
            hash.Add(body);
        _hash = hash.ToHashCode();
    }

    /// <inheritdoc/>
    public bool Equals(UnitAlike? other) =>
        other is not null
        && _hash == other._hash
        && ReferenceEquals(_model, other._model)
        && _shop == other._shop
        && _learned == other._learned
        && _seen.SequenceEqual(other._seen);

    /// <inheritdoc/>
    public override bool Equals(object? obj) => Equals(obj as UnitAlike);

    /// <inheritdoc/>
    public override int GetHashCode() => _hash;
}
