using Nailcrow.Client.Procedures;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Procedures;
using Nailcrow.Service.Host;

namespace Nailcrow.Service.Procedures;

/// <summary>The procedure files as read at start. A file with problems is listed with them and used for nothing.</summary>
internal sealed class ProcedureLibrary
{
    private readonly Lazy<IReadOnlyList<(Procedure? Procedure, ProcedureView View)>> _read;

    public ProcedureLibrary(ServiceSettings settings) => _read = new(() => Read(settings.Procedures));

    public IReadOnlyList<ProcedureView> Views => [.. _read.Value.Select(r => r.View)];

    public Procedure? Find(string id) => Usable.FirstOrDefault(p => p.Id == id);

    /// <summary>The procedures written for a model, in order of name.</summary>
    public IReadOnlyList<Procedure> For(ApplianceModel model) => [.. Usable.Where(p => ModelProperties.Hold(model, p.AppliesTo))];

    private IEnumerable<Procedure> Usable => _read.Value.Select(r => r.Procedure).OfType<Procedure>();

    private static List<(Procedure?, ProcedureView)> Read(string folder) =>
        [.. Directory.EnumerateFiles(folder, "*.yaml").Order(StringComparer.Ordinal).Select(OfFile)];

    private static (Procedure?, ProcedureView) OfFile(string path)
    {
        var file = Path.GetFileName(path);
        var (procedure, problems) = ProcedureReader.Read(file, File.ReadAllText(path));
        return (procedure, new(file, procedure?.Id, procedure?.Title, procedure?.Version, procedure?.Steps.Count ?? 0, problems));
    }
}
