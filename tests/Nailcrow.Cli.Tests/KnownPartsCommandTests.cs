namespace Nailcrow.Cli.Tests;

/// <summary>What is known to work in a machine, and what is known not to, as a list that comes and goes.</summary>
public sealed class KnownPartsCommandTests(CommandInUse use) : IClassFixture<CommandInUse>
{
    /// <param name="because">Null: the list has no such column.</param>
    private async Task ListedAsync(string? because)
    {
        var file = Path.GetTempFileName();
        await File.WriteAllTextAsync(
            file,
            because is null
                ? "appliance-model,drive-model\nostlane-r8,Cindral C12T\n"
                : $"appliance-model,drive-model,not-because\nostlane-r8,Cindral C12T,{because}\n",
            TestContext.Current.CancellationToken
        );
        await use.Command.DoneAsync("import", "qualified", file, "--write", "--as", "lioth");
        File.Delete(file);
    }

    /// <summary>A table breaks its lines where its columns end.</summary>
    private static string Squeezed(string table) => string.Join(" ", table.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));

    [Fact]
    public async Task A_model_that_never_worked_is_taken_only_against_that_in_writing_until_the_list_says_otherwise()
    {
        await use.Command.DoneAsync(
            "stock",
            "receive",
            "NEVER0001A",
            "--depot",
            "Hill",
            "--model",
            "Cindral C12T",
            "--size",
            "14TB",
            "--as",
            "sefa"
        );
        await ListedAsync("it is dropped by the array within a day");
        await ListedAsync(null); // an older list, that says nothing of it
        var ticket = await use.TypedTicketAsync();

        var bring = await use.Command.DoneAsync("bring", ticket);
        var refused = await use.Command.RunAsync("part", "reserve", ticket, "NEVER0001A", "--as", "sefa");
        var taken = await use.Command.RunAsync(
            "part",
            "reserve",
            ticket,
            "NEVER0001A",
            "--because",
            "There is no other until Monday",
            "--as",
            "sefa"
        );
        var exported = await use.Command.DoneAsync("export", "qualified", "--as", "lioth");

        Squeezed(bring).ShouldContain("known not to work in", Case.Insensitive, bring);
        refused.Code.ShouldNotBe(0);
        refused.All.ShouldContain("it is dropped by the array within a day");
        taken.Code.ShouldBe(0, taken.All);
        exported.ShouldContain("it is dropped by the array within a day");

        await ListedAsync("");
        (await use.Command.DoneAsync("bring", await use.TypedTicketAsync())).ShouldNotContain("known not to work");
    }

    [Fact]
    public async Task A_model_that_turns_out_never_to_work_is_told_of_the_part_that_is_set_aside_already()
    {
        var ticket = await use.TypedTicketAsync();
        string[] part = ["NEVER0002B", "--depot", "Hill", "--model", "Cindral C12T", "--size", "14TB"];
        await use.Command.DoneAsync(["stock", "receive", .. part, "--as", "sefa"]);
        await use.Command.DoneAsync("part", "reserve", ticket, "NEVER0002B", "--as", "sefa");
        (await use.Command.DoneAsync("bring", ticket)).ShouldNotContain("look twice:");

        await ListedAsync("it is dropped by the array within a day");

        var told = Squeezed(await use.Command.DoneAsync("bring", ticket));
        told.ShouldContain("NEVER0002B Cindral C12T: set aside in Hill look twice: ");
        told.ShouldContain("it is dropped by the array within a day");
        await ListedAsync("");
    }
}
