namespace Nailcrow.Service.Host.Answers;

internal static class AnswerDate
{
    /// <summary>
    /// Each answer bears the time by the clock that journals and waits go by, from which devices measure how wrong theirs is. The
    /// server's own is written once a second by a thread that comes late where the processor is taken: seconds old, and in an answer
    /// that was quick, it makes a device that is right take itself for wrong, and what two people write change places.
    /// </summary>
    public static void UseAnswerDate(this WebApplication app)
    {
        var time = app.Services.GetRequiredService<TimeProvider>();
        app.Use(
            (http, next) =>
            {
                http.Response.Headers.Date = time.GetUtcNow().ToString("r");
                return next(http);
            }
        );
    }
}
