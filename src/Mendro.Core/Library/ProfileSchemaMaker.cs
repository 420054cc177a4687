using System.ComponentModel.DataAnnotations;
using System.Reflection;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using System.Text.Json.Serialization.Metadata;
using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>
/// Makes the JSON Schema of <c>mendro.profile/1</c> from the types themselves, so that the format is written once. The file that
/// ships is what this gives; a test compares them.
/// </summary>
public static class ProfileSchemaMaker
{
    private static readonly JsonSerializerOptions Written = new()
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        NewLine = "\n",
    };

    private static readonly JsonSerializerOptions Format = new(ProfileJson.Options)
    {
        TypeInfoResolver = new DefaultJsonTypeInfoResolver(),
    };

    /// <summary>The schema as text, JSON Schema draft 7.</summary>
    public static string Make()
    {
        var made = (JsonObject)Of(typeof(DeviceProfile), null);
        var schema = new JsonObject
        {
            ["$schema"] = "http://json-schema.org/draft-07/schema#",
            ["title"] = DeviceProfile.FormatName,
            ["description"] = "How one model of device hangs together.",
        };
        foreach (var (name, value) in made.ToList())
        {
            made.Remove(name);
            schema[name] = value;
        }

        return schema.ToJsonString(Written) + "\n";
    }

    /// <summary>Schema of one type: the exporter's, without its references to earlier places, and with our rules added.</summary>
    private static JsonNode Of(Type type, ICustomAttributeProvider? rules)
    {
        var bare = Nullable.GetUnderlyingType(type) ?? type;
        JsonObject schema;
        if (bare.GetInterfaces().Any(i => i.IsGenericType && i.GetGenericTypeDefinition() == typeof(IDomainId<>)))
            schema = new JsonObject { ["type"] = "string", ["pattern"] = ProfileFormat.IdPattern };
        else if (bare.IsGenericType && bare.GetGenericTypeDefinition() == typeof(IReadOnlyList<>))
            schema = new JsonObject { ["type"] = "array", ["items"] = Of(bare.GetGenericArguments()[0], null) };
        else if (Format.GetTypeInfo(bare) is { Kind: JsonTypeInfoKind.Object } info)
            schema = OfObject(info);
        else
            schema = Simple(bare);
        if (rules is not null)
            Add(schema, rules);
        return schema;
    }

    private static JsonObject OfObject(JsonTypeInfo info)
    {
        var properties = new JsonObject();
        var required = new JsonArray();
        foreach (var property in info.Properties.Where(p => p.AssociatedParameter is not null))
        {
            var rules = property.AttributeProvider;
            properties[property.Name] = Of(property.PropertyType, rules);
            var missing =
                property.AssociatedParameter is { HasDefaultValue: true } or { IsNullable: true }
                || Rule<MayBeMissingAttribute>(rules) is not null;
            if (!missing)
                required.Add((JsonNode)property.Name);
        }

        var schema = new JsonObject { ["type"] = "object", ["additionalProperties"] = false };
        if (required.Count > 0)
            schema["required"] = required;
        schema["properties"] = properties;
        return schema;
    }

    /// <summary>Numbers, texts and enumerations as the exporter has them; nothing may be null, it is left out instead.</summary>
    private static JsonObject Simple(Type type)
    {
        var schema = (JsonObject)Format.GetJsonSchemaAsNode(type);
        if (schema["type"] is JsonArray types)
            schema["type"] = types.First(t => t!.GetValue<string>() != "null")!.DeepClone();
        return schema;
    }

    private static void Add(JsonObject schema, ICustomAttributeProvider rules)
    {
        var isList = schema["type"]?.GetValue<string>() == "array";
        if (Rule<RegularExpressionAttribute>(rules) is { } pattern)
            schema["pattern"] = pattern.Pattern;
        if (Rule<MinLengthAttribute>(rules) is { } least)
            schema[isList ? "minItems" : "minLength"] = least.Length;
        if (Rule<MaxLengthAttribute>(rules) is { } most)
            schema[isList ? "maxItems" : "maxLength"] = most.Length;
        if (Rule<AllowedValuesAttribute>(rules) is { } allowed)
            schema["enum"] = new JsonArray([.. allowed.Values.Select(v => JsonValue.Create((string)v!))]);
        if (Rule<RangeAttribute>(rules) is not { } range)
            return;
        schema[range.MinimumIsExclusive ? "exclusiveMinimum" : "minimum"] = JsonValue.Create(
            range.Minimum is int low ? low : (double)range.Minimum
        );
        schema["maximum"] = JsonValue.Create(range.Maximum is int high ? high : (double)range.Maximum);
    }

    private static TRule? Rule<TRule>(ICustomAttributeProvider? rules)
        where TRule : Attribute => rules?.GetCustomAttributes(typeof(TRule), false).OfType<TRule>().FirstOrDefault();
}
