using Nailcrow.Core.Procedures;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Ending;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Reading;

namespace Nailcrow.Core.Tests.Tickets.Journal;

/// <summary>An entry that cannot be read is shown, counts for nothing, and takes nothing with it.</summary>
public class UnreadableTests
{
    private static Entry Stored(long seq, string kind, string body, string? whole = null) =>
        EntryReader.Read(
            new(
                Guid.CreateVersion7(Some.Noon.AddMinutes(seq)),
                1001,
                seq,
                Some.Noon.AddMinutes(seq),
                Some.Noon.AddMinutes(seq),
                "ilka",
                kind,
                whole
                    ?? $$"""{"at":"2026-03-02T12:0{{seq}}:00+00:00","body":{{body}},"by":"ilka","clockOffsetMs":0,"hash":"","id":"01a211bc"""
                        + $$"""-7512-7eb7-8bae-f5088d976b81","recordedAt":"2026-03-02T12:0{{seq}}:00+00:00","seq":{{seq}},"ticket":1001}""",
                ""
            )
        );

    private const string Report =
        """{"kind":"fault-reported","asset":"FSC-1","chassisSerial":"BRK12"""
        + """-0042","model":"B12","customer":"Corrin Trust","site":"Corrin","location":"Hall","job":"fault","symptom":"Amber lamp"}""";

    [Theory]
    [InlineData("sun-dried", """{"kind":"sun-dried","by":"a later version"}""", "this version does not know the kind.")]
    [InlineData("note-written", """{"kind":"note-written"}""", "its fields are not those of its kind.")]
    [InlineData("note-written", """{"kind":"note-written","text":7}""", "not at $.text.")]
    [InlineData(
        "reading-taken",
        """{"kind":"reading-taken","array":"a","progress":"melting","phase":"rebuilding","source":"person"}""",
        "not at $.progress."
    )]
    [InlineData("note-written", "[1]", "its fields are not those of its kind.")]
    [InlineData("note-written", "null", "it is empty.")]
    public void It_stands_in_its_place_with_why_and_a_lead_has_to_say_how_it_is_taken(string kind, string body, string why)
    {
        var record = TicketRecord.Of(
            1001,
            [
                Stored(1, "fault-reported", Report),
                Stored(2, kind, body),
                Stored(3, "note-written", """{"kind":"note-written","text":"Later"}"""),
            ]
        );

        ((Unreadable)record.Arrived[1].Body).Why.ShouldBe(why);
        record.Ticket.Entries.ShouldBe(3);
        record
            .Ticket.Discrepancies.Select(d => d.Sentence)
            .ShouldBe([$"An entry of the kind '{kind}' by ilka cannot be read by this version, and counts for nothing: {why}"]);
        ClosingCondition.Of(record.Ticket).Single(c => c.Name == "discrepancies").Met.ShouldBeFalse();
    }

    [Theory]
    [InlineData("{")]
    [InlineData("")]
    [InlineData("7")]
    [InlineData("{\"at\":1}")]
    public void A_text_that_is_none_of_an_entry_is_shown_by_what_stands_beside_it(string text)
    {
        var entry = Stored(2, "note-written", "", text);

        entry.ShouldSatisfyAllConditions(
            () => entry.Body.ShouldBeOfType<Unreadable>().Kind.ShouldBe("note-written"),
            () => entry.By.ShouldBe("ilka"),
            () => entry.Seq.ShouldBe(2)
        );
    }

    [Fact]
    public void Of_a_report_that_cannot_be_read_what_can_be_made_out_still_says_which_machine_it_is_about()
    {
        var report = TicketRecord.Of(1001, [Stored(1, "fault-reported", Report.Replace("\"fault\"", "\"flood\""))]).Ticket.Report;

        (report?.Asset, report?.Symptom, report?.Bay).ShouldBe(("FSC-1", "Amber lamp", null));
    }

    [Fact]
    public void A_ticket_whose_report_was_taken_out_is_still_a_ticket() =>
        TicketRecord
            .Of(1001, [Stored(2, "note-written", """{"kind":"note-written","text":"Later"}""")])
            .Ticket.Report?.Symptom.ShouldBe("The report of this ticket is missing.");

    [Fact]
    public void Where_numbers_were_cut_out_the_next_entry_has_a_number_of_its_own()
    {
        var record = TicketRecord.Of(
            1001,
            [Stored(1, "fault-reported", Report), Stored(5, "note-written", """{"kind":"note-written","text":"Five"}""")]
        );

        record.Next(new(Guid.NewGuid(), Some.Noon, 0, Played.Ilka, new NoteWritten("Next")), Some.Noon).Seq.ShouldBe(6);
        record.After(1).Select(e => e.Seq).ShouldBe([5L]);
        record.After(4).Select(e => e.Seq).ShouldBe([5L]);
        record.After(5).ShouldBeEmpty();
    }

    [Fact]
    public void A_sheet_from_before_there_could_be_several_drives_is_of_its_one_drive()
    {
        var body =
            """{"kind":"sheet-compiled","sheet":{"id":"01a211bc"""
            + """-7512-7eb7-8bae-f5088d976b81","procedure":"p","title":"P","version":"1","array":"vault","targetBay":"2","targetSerial":"P8BADD"""
            + """0517","chassisSerial":"BRK12-0042","steps":[{"id":"a","kind":"do","chapter":"C","say":"D"""
            + """o.","answers":[{"answer":"done","label":"Done"}]}]}}""";

        var sheet = ((SheetCompiled)Stored(2, "sheet-compiled", body).Body).Sheet;

        sheet.Drives.ShouldBe([new("2", "P8BADD0517")]);
    }

    [Fact]
    public void A_rule_that_stumbles_over_an_entry_is_told_and_the_rest_of_the_ticket_is_there()
    {
        var played = Played.Reported();
        var sheet = new RunSheet(Guid.NewGuid(), "p", "P", "1", "vault", "2", "S", "C", []); // no first step to begin at

        played.Arrives(new SheetCompiled(sheet));
        played.Arrives(new NoteWritten("Still here"));

        played.Ticket.Entries.ShouldBe(3);
        played
            .Ticket.Discrepancies.Single()
            .Sentence.ShouldStartWith("An entry of the kind 'sheet-compiled' by ilka cannot be followed, and counts for nothing: ");
    }
}
