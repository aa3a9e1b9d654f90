namespace Nailcrow.Service.Tests.Swaps;

/// <summary>The procedures that are written for one kind of machine.</summary>
[Takes(188)]
public sealed class MachinesFollowedTests(PeopledService service) : ProceduresFollowed(service)
{
    public static TheoryData<string> Names => Named(forOneKind: true);

    [Theory, MemberData(nameof(Names))]
    public Task Every_answer_of_every_step_can_be_given_and_the_end_is_reached(string name) => FollowedThroughAsync(name);
}
