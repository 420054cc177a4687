using Mendro.Core.Colours;
using Mendro.Core.Jobs;
using Mendro.Core.Pictures;
using Mendro.Core.Profiles;
using Mendro.Pictures;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What is told of a picture.</summary>
/// <param name="About">What it shows.</param>
/// <param name="Side"><c>before</c>, <c>after</c>, or blank.</param>
/// <param name="Caption">Words under it.</param>
public sealed record PictureWords(string About, string Side, string Caption);

/// <summary>Pictures of a unit: taken in, told, marked, measured, taken away and brought back.</summary>
public sealed class PictureDesk(JobBench bench, PictureStore pictures, PictureFiles files)
{
    /// <summary>Largest file that is taken, bytes.</summary>
    public static int MostBytes => PictureReader.MostBytes;

    /// <summary>Longer side of what is kept, pixels.</summary>
    public static int LongestSide => PictureReader.LongestSide;

    /// <summary>Most pictures of a job.</summary>
    public const int Most = 120;

    /// <summary>Longest caption, characters.</summary>
    public const int LongestCaption = 120;

    /// <summary>Takes a picture in. Nothing is kept of one that is refused.</summary>
    /// <returns>Its id, in words of the deed.</returns>
    public Deed<Taken> Take(long number, byte[] file, PictureWords words, string? once = null)
    {
        var read = PictureReader.Read(file);
        if (!read.IsOk)
            return Refusal.Invalid(read.Problem);
        return bench.On<Taken>(
            number,
            once,
            job =>
            {
                if (Wrong(job.Model.Profile, words) is { } wrong)
                    return Refusal.Invalid(wrong);
                if (pictures.Of(job.Job.Id).Count >= Most)
                    return Refusal.Invalid($"A job takes {Most} pictures.");
                // First the file, then the row: a row never points at nothing.
                files.Write(read.Value.Hash, read.Value.Jpeg, read.Value.Small);
                var id = pictures.Add(
                    new UnitPicture
                    {
                        JobId = job.Job.Id,
                        Hash = read.Value.Hash,
                        Width = read.Value.Width,
                        Height = read.Value.Height,
                        Bytes = read.Value.Jpeg.Length,
                        About = words.About,
                        Side = words.Side,
                        Caption = words.Caption,
                    }
                );
                return new Taken(id);
            }
        );
    }

    /// <summary>Tells what a picture shows.</summary>
    public Deed<Done> Tell(long number, long id, PictureWords words, string? once = null) =>
        On(
            number,
            id,
            once,
            (job, picture) =>
            {
                if (Wrong(job.Model.Profile, words) is { } wrong)
                    return Refusal.Invalid(wrong);
                pictures.Save(picture with { About = words.About, Side = words.Side, Caption = words.Caption });
                return new Done("Kept.");
            }
        );

    /// <summary>Draws a mark over it.</summary>
    public Deed<Done> Mark(long number, long id, PictureMark mark, string? once = null) =>
        On(
            number,
            id,
            once,
            (_, picture) =>
            {
                if (mark.Problem is { } wrong)
                    return Refusal.Invalid(wrong);
                if (picture.Drawn.Count >= PictureMark.Most)
                    return Refusal.Invalid($"A picture takes {PictureMark.Most} marks.");
                pictures.Save(picture with { Marks = PictureMark.Write([.. picture.Drawn, mark]) });
                return new Done("Marked.");
            }
        );

    /// <summary>Takes a mark off again.</summary>
    /// <param name="number">Job.</param>
    /// <param name="id">Picture.</param>
    /// <param name="at">Which, from 0; the last when null.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Unmark(long number, long id, int? at, string? once = null) =>
        On(
            number,
            id,
            once,
            (_, picture) =>
            {
                var marks = picture.Drawn.ToList();
                var which = at ?? marks.Count - 1;
                if (which < 0 || which >= marks.Count)
                    return Refusal.Invalid("There is no such mark.");
                marks.RemoveAt(which);
                pictures.Save(picture with { Marks = PictureMark.Write(marks) });
                return new Done("Taken off.");
            }
        );

    /// <summary>Takes a picture away, or brings it back.</summary>
    public Deed<Done> Remove(long number, long id, bool back, string? once = null) =>
        On(
            number,
            id,
            once,
            (_, picture) =>
            {
                pictures.SetDeleted(picture.Id, !back);
                return new Done(back ? "Brought back." : "Taken away.");
            }
        );

    /// <summary>Measures yellowing in a picture and files it as a reading.</summary>
    /// <param name="number">Job.</param>
    /// <param name="id">Picture.</param>
    /// <param name="inside">The inside of the shell, 0 to 1 across and down.</param>
    /// <param name="outside">The outside.</param>
    /// <param name="card">A grey card, or null.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Measure(
        long number,
        long id,
        (double X, double Y) inside,
        (double X, double Y) outside,
        (double X, double Y)? card,
        string? once = null
    ) =>
        On(
            number,
            id,
            once,
            (job, picture) =>
            {
                var places = new List<(double X, double Y)> { inside, outside };
                if (card is { } grey)
                    places.Add(grey);
                if (places.Any(p => p is not { X: >= 0 and <= 1, Y: >= 0 and <= 1 }))
                    return Refusal.Invalid("The places lie on the picture.");
                if (files.Read(picture.Hash) is not { } file || PatchColour.Measure(file, places) is not { } light)
                    return Refusal.Invalid("The file of this picture is gone.");
                var seen = Yellowing.Of(light[0], light[1], light.Count > 2 ? light[2] : null);
                bench.File(job, ColourMeasured.Of(picture.Hash, seen));
                return new Done(seen.Words + ".");
            }
        );

    /// <summary>What a picture can show, of this model: its key and its words.</summary>
    public static IEnumerable<(string About, string Words)> Subjects(DeviceProfile profile) =>
        new (string, string)[] { ("", "the unit"), ("condition", "condition at intake") }
            .Concat(Enum.GetValues<WorkStage>().Select(s => ($"stage:{s}", $"stage: {StageWords.Name(s)}")))
            .Concat((profile.Steps ?? []).Select(s => ($"step:{s.Id}", $"step: {s.Name ?? s.Id}")))
            .Concat((profile.Fasteners ?? []).Where(f => !f.NoScrew).Select(f => ($"fastener:{f.Id}", $"fastener {f.Id}")))
            .Concat(profile.Probes.Select(p => ($"probe:{p.Id}", $"reading: {p.Name}")));

    private Deed<Done> On(long number, long id, string? once, Func<OpenJob, UnitPicture, Deed<Done>> work) =>
        bench.On<Done>(number, once, job => pictures.Find(job.Job.Id, id) is { } picture ? work(job, picture) : Refusal.Missing);

    private static string? Wrong(DeviceProfile profile, PictureWords words) =>
        words.Caption.Length > LongestCaption ? $"The words take {LongestCaption} characters."
        : words.Side is not ("" or "before" or "after") ? "A picture is from before, from after, or neither."
        : Subjects(profile).All(s => s.About != words.About) ? "Choose what it shows."
        : null;
}

/// <summary>A picture was taken in.</summary>
/// <param name="Id">Its id.</param>
public sealed record Taken(long Id);
