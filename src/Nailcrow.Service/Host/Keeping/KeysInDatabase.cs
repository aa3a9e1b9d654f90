using System.Xml.Linq;
using Microsoft.AspNetCore.DataProtection.Repositories;
using Nailcrow.Store.Nodes;

namespace Nailcrow.Service.Host.Keeping;

/// <summary>What cookies, tokens and secrets are protected by, where every node reads it.</summary>
internal sealed class KeysInDatabase(SharedKeys keys) : IXmlRepository
{
    private const string Kind = "protection";

    public IReadOnlyCollection<XElement> GetAllElements() => [.. keys.All(Kind).Select(XElement.Parse)];

    public void StoreElement(XElement element, string friendlyName) =>
        keys.Keep(Kind, friendlyName, element.ToString(SaveOptions.DisableFormatting));
}
