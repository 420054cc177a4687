using Mendro.Core.Profiles;

namespace Shouldly;

/// <summary>Ids are compared with the text they stand for.</summary>
internal static class IdShould
{
    public static void ShouldBe<TId>(this TId id, string expected)
        where TId : struct, IDomainId<TId> => id.Value.ShouldBe(expected);

    public static void ShouldBe<TId>(this TId? id, string expected)
        where TId : struct, IDomainId<TId> => (id?.Value).ShouldBe(expected);

    public static void ShouldNotBe<TId>(this TId id, string expected)
        where TId : struct, IDomainId<TId> => id.Value.ShouldNotBe(expected);

    public static void ShouldBe<TId>(this IEnumerable<TId> ids, string[] expected, bool ignoreOrder = false)
        where TId : struct, IDomainId<TId> => ids.Select(id => id.Value).ToList().ShouldBe(expected, ignoreOrder);

    public static void ShouldContain<TId>(this IEnumerable<TId> ids, string expected)
        where TId : struct, IDomainId<TId> => ids.Select(id => id.Value).ShouldContain(expected);

    public static void ShouldNotContain<TId>(this IEnumerable<TId> ids, string expected)
        where TId : struct, IDomainId<TId> => ids.Select(id => id.Value).ShouldNotContain(expected);
}
