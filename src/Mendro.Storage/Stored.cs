using System.Globalization;
using System.Reflection;
using System.Text.Json;
using Dapper;

namespace Mendro.Storage;

/// <summary>Reads what is stored and was perhaps written by another hand: a page opens whatever stands there.</summary>
internal static class Stored
{
    /// <summary>A word of a closed list; another one counts as what is usual.</summary>
    public static T Word<T>(string? text, T usual)
        where T : struct, Enum => Enum.TryParse<T>(text, ignoreCase: true, out var told) && Enum.IsDefined(told) ? told : usual;

    /// <summary>JSON of its kind; what cannot be read counts as what is usual.</summary>
    public static T Json<T>(string? text, T usual, JsonSerializerOptions? options = null)
        where T : class
    {
        try
        {
            return text is null ? usual : JsonSerializer.Deserialize<T>(text, options) ?? usual;
        }
        catch (Exception ex) when (ex is JsonException or NotSupportedException or FormatException or ArgumentException)
        {
            return usual;
        }
    }

    /// <summary>A moment; what is none counts as the beginning of time as computers have it.</summary>
    public static DateTimeOffset Moment(string? text) =>
        DateTimeOffset.TryParse(text, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal | DateTimeStyles.AdjustToUniversal, out var at)
            ? at
            : DateTimeOffset.UnixEpoch;

    /// <summary>An amount; what is none counts as nothing.</summary>
    public static decimal Amount(string? text) =>
        decimal.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var amount) ? amount : 0;

    /// <summary>Has words of closed lists read by <see cref="Word{T}"/>: the mapper itself throws at one that it does not know. A type that
    /// has such words has for each a setter of text beside it, named like it with “Stored” behind.</summary>
    public static void Lenient<T>() => SqlMapper.SetTypeMap(typeof(T), new Map(typeof(T)));

    private sealed class Map(Type type) : SqlMapper.ITypeMap
    {
        private const BindingFlags Any = BindingFlags.Instance | BindingFlags.NonPublic | BindingFlags.Public;

        private readonly DefaultTypeMap _usual = new(type);

        public ConstructorInfo? FindConstructor(string[] names, Type[] types) => _usual.FindConstructor(names, types);

        public ConstructorInfo? FindExplicitConstructor() => _usual.FindExplicitConstructor();

        public SqlMapper.IMemberMap? GetConstructorParameter(ConstructorInfo constructor, string columnName) =>
            _usual.GetConstructorParameter(constructor, columnName);

        public SqlMapper.IMemberMap? GetMember(string columnName) =>
            _usual.GetMember(columnName) is { Property: { PropertyType.IsEnum: true } word } && type.GetProperty(word.Name + "Stored", Any) is { } text
                ? new Member(columnName, text)
                : _usual.GetMember(columnName);
    }

    private sealed class Member(string column, PropertyInfo property) : SqlMapper.IMemberMap
    {
        public string ColumnName => column;

        public Type MemberType => property.PropertyType;

        public PropertyInfo? Property => property;

        public FieldInfo? Field => null;

        public ParameterInfo? Parameter => null;
    }
}
