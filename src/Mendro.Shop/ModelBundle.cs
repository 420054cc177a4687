using System.IO.Compression;
using System.Text;
using Mendro.Core;
using Mendro.Core.Profiles;

namespace Mendro.Shop;

/// <summary>Many models in one file: a ZIP archive of <c>mendro.profile/1</c> files, one a model.</summary>
public static class ModelBundle
{
    /// <summary>Models that one file may hold.</summary>
    public const int MostModels = 500;

    /// <summary>Bytes that one model may have, unpacked.</summary>
    public const int LargestModel = 1024 * 1024;

    /// <summary>Writes models.</summary>
    public static byte[] Write(IEnumerable<DeviceProfile> profiles)
    {
        using var file = new MemoryStream();
        using (var zip = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var profile in profiles)
            {
                using var entry = zip.CreateEntry(profile.Id + ".json", CompressionLevel.Optimal).Open();
                entry.Write(Encoding.UTF8.GetBytes(ProfileJson.Write(profile)));
            }

        return file.ToArray();
    }

    /// <summary>Reads the texts of the models; they are not judged here.</summary>
    /// <returns>Texts with their file names, or why the file is not taken.</returns>
    public static Outcome<IReadOnlyList<(string Name, string Text)>> Read(Stream file)
    {
        try
        {
            using var zip = new ZipArchive(file, ZipArchiveMode.Read);
            var models = zip.Entries.Where(e => e.Name.EndsWith(".json", StringComparison.OrdinalIgnoreCase)).ToList();
            if (models.Count is 0 or > MostModels)
                return Fail($"A file of models holds 1 to {MostModels} files that end in .json.");
            var texts = new List<(string, string)>();
            foreach (var model in models)
            {
                if (Unpacked(model) is not { } text)
                    return Fail($"“{model.Name}” is larger than 1 MB; a model has a few thousand characters.");
                texts.Add((model.Name, text));
            }

            return Outcome<IReadOnlyList<(string, string)>>.Ok(texts);
        }
        catch (InvalidDataException)
        {
            return Fail("The file is damaged, or no ZIP archive.");
        }
    }

    /// <summary>The text of an entry; null when it unpacks to more than it may, whatever its head says.</summary>
    private static string? Unpacked(ZipArchiveEntry entry)
    {
        using var from = entry.Open();
        var buffer = new byte[LargestModel + 1];
        var length = from.ReadAtLeast(buffer, buffer.Length, throwOnEndOfStream: false);
        return length > LargestModel ? null : Encoding.UTF8.GetString(buffer, 0, length);
    }

    private static Outcome<IReadOnlyList<(string Name, string Text)>> Fail(string problem) =>
        Outcome<IReadOnlyList<(string, string)>>.Fail(problem);
}
