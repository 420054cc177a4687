namespace Mendro.Pictures;

/// <summary>A picture made anew: upright, scaled down, and with nothing in it but what is to be seen.</summary>
/// <param name="Jpeg">The picture, JPEG.</param>
/// <param name="Small">The same for lists, JPEG.</param>
/// <param name="Width">Width, pixels.</param>
/// <param name="Height">Height, pixels.</param>
/// <param name="Hash">SHA-256 of <see cref="Jpeg"/>, lower-case hexadecimal.</param>
public sealed record CleanPicture(byte[] Jpeg, byte[] Small, int Width, int Height, string Hash);
