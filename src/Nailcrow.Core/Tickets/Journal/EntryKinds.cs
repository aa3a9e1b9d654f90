using System.Collections.Frozen;
using System.Reflection;
using System.Text.Json.Serialization;
using Nailcrow.Core.Tickets.Journal.Reading;

namespace Nailcrow.Core.Tickets.Journal;

/// <summary>The kinds of entry that this version knows, by their words.</summary>
public static class EntryKinds
{
    private static readonly JsonDerivedTypeAttribute[] Declared =
    [
        .. typeof(EntryBody).GetCustomAttributes<JsonDerivedTypeAttribute>(inherit: false),
    ];

    public static readonly FrozenSet<string> Known = Declared.Select(d => (string)d.TypeDiscriminator!).ToFrozenSet(); // each is declared with its word

    private static readonly FrozenDictionary<Type, string> Words = Declared.ToFrozenDictionary(
        d => d.DerivedType,
        d => (string)d.TypeDiscriminator!
    );

    public static string Of(EntryBody body) =>
        body switch
        {
            Unreadable unreadable => unreadable.Kind,
            Correcting.Struck struck => Of(struck.Was),
            _ => Words[body.GetType()],
        };
}
