namespace Nailcrow.Service.Tests.Swaps;

/// <summary>The procedures that are written for a job, on any kind of machine, and the recoveries.</summary>
[Takes(267)]
public sealed class JobsFollowedTests(PeopledService service) : ProceduresFollowed(service)
{
    public static TheoryData<string> Names => Named(forOneKind: false);

    [Theory, MemberData(nameof(Names))]
    public Task Every_answer_of_every_step_can_be_given_and_the_end_is_reached(string name) => FollowedThroughAsync(name);
}
