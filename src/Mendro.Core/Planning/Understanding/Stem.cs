using Lucene.Net.Tartarus.Snowball.Ext;

namespace Mendro.Core.Planning;

/// <summary>Base forms of English words, by the Snowball stemmer: “crackles”, “crackly” and “crackling” are one.</summary>
internal static class Stem
{
    // The stemmer keeps its word between two calls: each thread has one of its own.
    [ThreadStatic]
    private static EnglishStemmer? stemmer;

    /// <summary>The base form.</summary>
    public static string Of(string word)
    {
        stemmer ??= new EnglishStemmer();
        stemmer.SetCurrent(word);
        return stemmer.Stem() ? stemmer.Current : word;
    }
}
