namespace Nailcrow.Service.Host.Answers;

internal static class AnswerDate
{
    /// <summary>
    /// Each answer bears the time by the clock that journals and waits go by, from which devices measure how wrong theirs is; the
    /// server's own would be another one where the service is given its time.
    /// </summary>
    public static void UseAnswerDate(this WebApplication app)
    {
        var time = app.Services.GetRequiredService<TimeProvider>();
        if (time == TimeProvider.System)
            return; // the server's own, and it has it written already
        app.Use(
            (http, next) =>
            {
                http.Response.Headers.Date = time.GetUtcNow().ToString("r");
                return next(http);
            }
        );
    }
}
