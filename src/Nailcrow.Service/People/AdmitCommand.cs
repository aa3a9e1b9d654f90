using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.Options;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.People.SigningIn;
using Nailcrow.Store;
using Nailcrow.Store.People;
using static Nailcrow.Service.Host.OnTheMachine;

namespace Nailcrow.Service.People;

/// <summary>
/// <c>nailcrow-service admit NAME [--Nailcrow:Data=PLACE]</c>: on the machine itself, lets somebody in as an administrator, also beside a
/// running service. Whoever may write the database's file may do anything already; this does it in a way that is kept.
/// </summary>
internal static class AdmitCommand
{
    public const string Usual = "nailcrow-service admit NAME [--Nailcrow:Data=PLACE]";

    public static async Task<int> RunAsync(string[] args)
    {
        if (args is not ["admit", var name, .. var rest] || name.StartsWith('-'))
            return Say($"Say whom: {Usual}.", Usage);
        if (NoSetting(rest) is { } word)
            return Say($"'{word}' is nothing that is taken: {Usual}.", Usage);
        var settings = Settings(rest);
        if (settings.ProblemsOfThePlace().FirstOrDefault() is { } problem)
            return Say(problem, Refused);
        var place = Path.GetFullPath(settings.Data);
        if (settings.Database is null && !File.Exists(place))
            return Say($"There is no database at {place}; --Nailcrow:Data=PLACE says where it is.", Refused);
        await using var services = new ServiceCollection()
            .AddSingleton(TimeProvider.System)
            .AddLogging()
            .AddNailcrowStore(place, settings.Database)
            .AddSingleton<ISecretKeeper, NoSecrets>()
            .BuildServiceProvider();
        return await LetInAsync(services, name, settings);
    }

    private static async Task<int> LetInAsync(IServiceProvider services, string name, ServiceSettings settings)
    {
        var people = services.GetRequiredService<PeopleBook>();
        var hasher = new PasswordHasher<Person>(Options.Create(new PasswordHasherOptions { IterationCount = settings.PasswordRounds }));
        var password = FirstPasswords.Made();
        var hash = hasher.HashPassword(new(), password);
        await services.GetRequiredService<Database>().IsHereAsync(CancellationToken.None);
        var admitted = await people.FindAsync(name, CancellationToken.None) is null
            ? await people.AddAsync(new("root", null), New(name, hash), CancellationToken.None)
            : await people.LetBackInAsync(name, hash, CancellationToken.None);
        if (!admitted.Is(out var person, out var reason))
            return Say(reason, Refused);
        Console.WriteLine(
            $"{person.Name} may come in as an administrator, with the password {password}, which has to be changed at once. "
                + "Wherever they were signed in, they are not any more."
        );
        return Done;
    }

    private static Person New(string name, string hash) =>
        new()
        {
            UserName = name,
            FullName = name,
            RoleWords = Words.Of(Role.Admin),
            PasswordHash = hash,
            MustChange = true,
        };

    /// <summary>People have no secrets that are kept under the service's keys.</summary>
    private sealed class NoSecrets : ISecretKeeper
    {
        public string Protect(string secret) => throw new NotSupportedException("Nothing secret is written here.");

        public string? Open(string kept) => null;
    }
}
