using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;

namespace Nailcrow.Service.People.SecondFactor;

/// <summary>Whose roles take a second factor, as the service was told at its start.</summary>
internal sealed class SecondFactorRules(ServiceSettings settings)
{
    private readonly IReadOnlySet<Role> _roles = settings
        .SecondFactor.Select(word => Words.Parse<Role>(word, "role"))
        .OfType<Parsed<Role>.Ok>()
        .Select(r => r.Value)
        .ToHashSet();

    public bool Takes(IEnumerable<Role> roles) => roles.Any(_roles.Contains);
}
