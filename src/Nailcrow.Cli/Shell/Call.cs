using System.CommandLine;
using System.Text.Json.Serialization.Metadata;
using Nailcrow.Cli.Shell.Telling;
using Nailcrow.Client;

namespace Nailcrow.Cli.Shell;

/// <summary>One run of one command: what was typed, the service, and where the answer goes.</summary>
internal sealed class Call(ParseResult parsed, CancellationToken ct)
{
    // A machine behind the service may take its whole deadline of 10 s; beyond that nobody answers any more.
    private const int UsualPatience = 40;

    private const int LongestPatience = 600;

    private NailcrowClient? _client;

    public CancellationToken Ct => ct;

    public Screen Screen { get; } =
        Screen.To(parsed.InvocationConfiguration.Output, parsed.InvocationConfiguration.Error, parsed.GetValue(Globals.Json));

    public bool Json => parsed.GetValue(Globals.Json);

    /// <summary>Asks at the terminal, and can be left with Ctrl-C while it waits.</summary>
    public Task<string> AskAsync(string question) => Task.Run(() => Screen.Ask(question), CancellationToken.None).WaitAsync(ct);

    /// <summary>The same about what was shown only just now: what was typed before is no answer to it.</summary>
    public Task<string> AskAnewAsync(string question) => Task.Run(() => Screen.AskAnew(question), CancellationToken.None).WaitAsync(ct);

    /// <summary>What stands there; what may be left out is null or empty where it was.</summary>
    public T Get<T>(Argument<T> argument) =>
        argument.Arity.MinimumNumberOfValues == 0 ? parsed.GetValue(argument)! : parsed.GetRequiredValue(argument);

    public T? Get<T>(Option<T> option) => parsed.GetValue(option);

    /// <summary>What an option says without which the line would not have been taken.</summary>
    public T Said<T>(Option<T> needed) => parsed.GetRequiredValue(needed);

    /// <summary>Who acts; null when nobody is signed in.</summary>
    public Session? Session => Sessions.Read().Of(parsed.GetValue(Globals.As));

    public NailcrowClient Client => _client ??= SignedIn();

    /// <summary>It was called with a script's key.</summary>
    public bool WithKey { get; private set; }

    /// <summary>In whose name the service was called; null where nobody's token was used.</summary>
    public string? ActedAs { get; private set; }

    public Uri Service => Address(Session);

    /// <summary>A client that nobody has signed in with yet.</summary>
    public NailcrowClient Anonymous => new(Http(Service), TimeProvider.System);

    /// <summary>JSON for scripts, or drawn for people.</summary>
    public void Show<T>(T value, JsonTypeInfo<T> type, Action<Screen> draw)
    {
        if (Json)
            Screen.Json(value, type);
        else
            draw(Screen);
    }

    private NailcrowClient SignedIn()
    {
        var wanted = parsed.GetValue(Globals.As);
        if (wanted is null && Environment.GetEnvironmentVariable("NAILCROW_KEY") is { Length: > 0 } key)
            return ByKey(key);
        if (Session is not { } session)
            throw new NotSignedIn(
                wanted is null
                    ? "Nobody is signed in; 'nailcrow sign-in NAME' does that."
                    : $"{wanted} is not signed in here; 'nailcrow sign-in {wanted}' does that."
            );
        var service = Address(session);
        // What one service gave is nobody else's to see.
        if (!Sessions.SamePlace(session.Service, service))
            session =
                Sessions.Read().Of(wanted, service)
                ?? throw new NotSignedIn($"Nobody is signed in at {service}; 'nailcrow sign-in NAME --service {service}' does that.");
        var client = new NailcrowClient(Http(service), TimeProvider.System);
        client.UseToken(session.Token);
        ActedAs = session.Name;
        return client;
    }

    /// <summary>A script acts with a key of its own, whoever is signed in here; it goes where it is sent by name, or to this machine.</summary>
    private NailcrowClient ByKey(string key)
    {
        var client = new NailcrowClient(Http(Address(null)), TimeProvider.System);
        client.UseToken(key.Trim());
        WithKey = true;
        return client;
    }

    private static HttpClient Http(Uri service)
    {
        var http = new HttpClient { BaseAddress = service, Timeout = Patience() };
        // People find their own devices again by it, where they look at who is signed in in their name.
        http.DefaultRequestHeaders.TryAddWithoutValidation("User-Agent", $"nailcrow/{ThisVersion.Text} ({Environment.MachineName})");
        return http;
    }

    /// <summary>How long the service is waited for, in whole seconds from NAILCROW_PATIENCE: a line from a tide station may be slow.</summary>
    private static TimeSpan Patience() =>
        Environment.GetEnvironmentVariable("NAILCROW_PATIENCE") switch
        {
            null or "" => TimeSpan.FromSeconds(UsualPatience),
            var said when int.TryParse(said, out var seconds) && seconds is >= 1 and <= LongestPatience => TimeSpan.FromSeconds(seconds),
            var other => throw new UsageProblem(
                $"NAILCROW_PATIENCE is '{other}'; accepted: 1 to {LongestPatience}, the seconds for which the service is waited for."
            ),
        };

    private Uri Address(Session? session) =>
        parsed.GetValue(Globals.Service)
        ?? (Uri.TryCreate(Environment.GetEnvironmentVariable("NAILCROW_SERVICE"), UriKind.Absolute, out var named) ? named : null)
        ?? session?.Service
        ?? new Uri("http://127.0.0.1:7420");
}

internal sealed class NotSignedIn(string sentence) : Exception(sentence);
