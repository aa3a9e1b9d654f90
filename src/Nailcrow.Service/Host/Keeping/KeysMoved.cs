using System.Security.Cryptography;
using System.Xml.Linq;
using Microsoft.AspNetCore.DataProtection.Repositories;
using Microsoft.AspNetCore.DataProtection.XmlEncryption;
using Nailcrow.Store;
using Nailcrow.Store.Nodes;
using Nailcrow.Store.OnFile;
using Nailcrow.Store.Tickets.Journal;
using Nailcrow.Store.Tickets.Journal.Sealing;

namespace Nailcrow.Service.Host.Keeping;

/// <summary>
/// Keys go along with a record: from the folder beside the file into the database of nodes, under their certificate, or back. Whoever is signed in
/// stays so, and secrets can be read on.
/// </summary>
/// <param name="from">The services of the place that the record leaves.</param>
internal sealed class KeysMoved(IServiceProvider from, IServiceProvider to, ServiceSettings settings)
{
    // As data protection writes it: what is to be encrypted is marked, and stands encrypted in an element of this name.
    private static readonly XNamespace Protection = "http://schemas.asp.net/2015/03/dataProtection";
    private static readonly XName Marked = Protection + "requiresEncryption";
    private static readonly XName Encrypted = Protection + "encryptedSecret";
    private const string Decryptor = "decryptorType";

    public void ToServer(string folder)
    {
        if (Directory.Exists(folder))
            foreach (var file in Directory.EnumerateFiles(folder, "*.xml").Order(StringComparer.Ordinal))
                new KeysInDatabase(to.GetRequiredService<SharedKeys>()).StoreElement(
                    Shut(XElement.Load(file)),
                    Path.GetFileNameWithoutExtension(file)
                );
        MoveSealKey();
    }

    public void ToFolder(string folder)
    {
        OwnFiles.SecretFolder(folder);
        var files = new FileSystemXmlRepository(new(folder), from.GetRequiredService<ILoggerFactory>());
        foreach (var element in new KeysInDatabase(from.GetRequiredService<SharedKeys>()).GetAllElements())
            files.StoreElement(Open(element), $"{element.Name.LocalName}-{element.Attribute("id")?.Value ?? $"{Guid.CreateVersion7()}"}");
        MoveSealKey();
    }

    private void MoveSealKey()
    {
        if (from.GetRequiredService<SealKeyPlace>().Kept() is { } pem)
            to.GetRequiredService<SealKeyPlace>().Keep(pem);
    }

    /// <summary>Under the certificate, where there is one.</summary>
    private XElement Shut(XElement key)
    {
        if (Keys.Certificate(settings) is not { } certificate)
            return key;
        var encryptor = new CertificateXmlEncryptor(certificate, to.GetRequiredService<ILoggerFactory>());
        foreach (var secret in key.DescendantsAndSelf().Where(e => (bool?)e.Attribute(Marked) is true).ToList())
        {
            var shut = encryptor.Encrypt(secret);
            secret.ReplaceWith(
                new XElement(Encrypted, new XAttribute(Decryptor, shut.DecryptorType.AssemblyQualifiedName ?? ""), shut.EncryptedElement)
            );
        }
        return key;
    }

    /// <exception cref="NoKeyException">It is under another certificate than the one that was given.</exception>
    private XElement Open(XElement key)
    {
        foreach (var secret in key.DescendantsAndSelf(Encrypted).ToList())
            try
            {
                var kind = Type.GetType((string?)secret.Attribute(Decryptor) ?? "", throwOnError: true);
                var decryptor = (IXmlDecryptor)ActivatorUtilities.CreateInstance(from, kind ?? typeof(NullXmlDecryptor));
                secret.ReplaceWith(decryptor.Decrypt(secret.Elements().Single()));
            }
            catch (CryptographicException)
            {
                throw new NoKeyException();
            }
        return key;
    }
}
