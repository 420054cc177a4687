using Mendro.Storage;

namespace Mendro.Web;

/// <summary>What a request is answered that could not be done.</summary>
public static class ErrorCode
{
    /// <summary>507 when nothing can be written (RFC 4918), 503 when the file is in use, else 500.</summary>
    public static int Of(Exception ex) =>
        ShopFullException.Reason(ex) is not null ? StatusCodes.Status507InsufficientStorage
        : ex is ShopBusyException ? StatusCodes.Status503ServiceUnavailable
        : StatusCodes.Status500InternalServerError;
}
