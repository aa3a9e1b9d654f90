using Polly;
using Polly.Retry;

namespace Nailcrow.Client;

/// <summary>
/// What may be asked twice is asked again where its answer was lost on the way: what is only read, and what carries an id of its own.
/// Behind a proxy the second one is answered by another node, and nobody notices that one was killed.
/// </summary>
internal sealed class LostAnswers(TimeProvider time)
{
    private readonly Lazy<ResiliencePipeline> _asking = new(() =>
        new ResiliencePipelineBuilder { TimeProvider = time }
            .AddRetry(
                new RetryStrategyOptions
                {
                    ShouldHandle = args => ValueTask.FromResult(args.Outcome.Exception is { } e && Silence.IsOnTheWay(e)),
                    // After 0.25, 0.5, 1 and 2 s: a proxy has found out by then which nodes there are.
                    MaxRetryAttempts = 4,
                    Delay = TimeSpan.FromMilliseconds(250),
                    BackoffType = DelayBackoffType.Exponential,
                }
            )
            .Build()
    );

    public async Task<T> AgainAsync<T>(Func<Task<T>> ask, CancellationToken ct) =>
        await _asking.Value.ExecuteAsync(async _ => await ask(), ct);
}
