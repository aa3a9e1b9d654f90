using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using Nailcrow.Core.People;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Swaps.Following;
using Nailcrow.Core.Swaps.Following.Answering;
using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Canonical;
using Nailcrow.Core.Tickets.Journal.Reading;

namespace Nailcrow.Core.Tests.Tickets.Journal;

/// <summary>What holds for every kind of entry there is, and for every one that will be.</summary>
public class EveryKindTests
{
    public static TheoryData<string> Kinds => [.. MadeUp.Kinds.Select(k => k.Name)];

    private static Type Named(string kind) => MadeUp.Kinds.Single(k => k.Name == kind);

    private static Entry Open(EntryBody body) =>
        new(Guid.CreateVersion7(), 1001, 2, Some.Noon, -3, Some.Noon.AddSeconds(1), "ilka", body, "");

    /// <summary>In the form of today: a sheet names its drives.</summary>
    private static EntryBody Today(EntryBody body) =>
        body is SheetCompiled { Sheet: { Drives: null } sheet } old ? old with { Sheet = sheet with { Drives = [] } } : body;

    private static Entry Read(Entry open, string text) =>
        EntryReader.Read(new(open.Id, open.Ticket, open.Seq, open.At, open.RecordedAt, open.By, EntryKinds.Of(open.Body), text, ""));

    /// <summary>A ticket whole, by every property of it: lists in records compare by reference.</summary>
    private static string Told(Ticket ticket) => JsonSerializer.Serialize(ticket, JsonSerializerOptions.Default);

    [Theory, MemberData(nameof(Kinds))]
    public void What_is_written_is_what_is_read_and_what_would_be_written_again(string kind) =>
        Gen.Int.Sample(
            seed =>
            {
                var open = Open(Today(new MadeUp(seed).Body(Named(kind))));
                var text = EntryText.Of(open);

                var read = Read(open, text);

                read.Body.ShouldBeOfType(Named(kind), $"{(read.Body as Unreadable)?.Why} in {text}");
                EntryText.Of(read with { Hash = "" }).ShouldBe(text);
                (read.At, read.ClockOffsetMs, read.RecordedAt, read.By).ShouldBe((open.At, open.ClockOffsetMs, open.RecordedAt, open.By));
            },
            iter: 100
        );

    [Theory, MemberData(nameof(Kinds))]
    public void A_ticket_says_the_same_before_a_restart_and_after_it(string kind) =>
        Gen.Int.Sample(
            seed =>
            {
                var whole = Played.At("end").Record;
                var entry = whole.Next(
                    new(Guid.CreateVersion7(), Some.Noon.AddDays(1), 0, Actor.Service, new MadeUp(seed).Body(Named(kind))),
                    Some.Noon.AddDays(1)
                );

                var now = whole.With(entry);
                var afterwards = TicketRecord.Of(1001, now.Arrived.Select(e => Read(e, e.Text) with { Hash = e.Hash }));

                Told(afterwards.Ticket).ShouldBe(Told(now.Ticket));
                HashChain.FirstBroken(afterwards.Arrived).ShouldBeNull();
            },
            iter: 5
        );

    [Theory, MemberData(nameof(Kinds))]
    public void A_field_that_an_earlier_version_did_not_have_is_not_missed(string kind)
    {
        var open = Open(new MadeUp(7, withOptional: false).Body(Named(kind)));

        Read(open, EntryText.Of(open)).Body.ShouldBeOfType(Named(kind));
    }

    [Fact]
    public void Whatever_may_be_null_may_be_left_out_by_every_type_that_an_entry_holds() =>
        MadeUp
            .Reachable()
            .SelectMany(t =>
                MadeUp.Made(t).GetParameters().Where(p => MadeUp.IsOptional(p) && !p.HasDefaultValue).Select(p => $"{t.Name}.{p.Name}")
            )
            .ShouldBeEmpty("a null is not written, so a parameter that may be null needs a default, or what was written is not read again");

    [Theory, MemberData(nameof(Kinds))]
    public void A_field_that_only_a_later_version_knows_is_kept_in_the_text_and_stops_nothing(string kind)
    {
        var open = Open(new MadeUp(11).Body(Named(kind)));
        var later = JsonNode.Parse(EntryText.Of(open))!; // it was just written
        later["body"]!["addedLater"] = new JsonObject { ["deep"] = 1 };

        var read = Read(open, later.ToJsonString());

        read.Body.ShouldBeOfType(Named(kind));
        read.BodyAsWritten().GetProperty("addedLater").GetProperty("deep").GetInt32().ShouldBe(1);
    }

    [Theory, MemberData(nameof(Kinds))]
    public void Every_kind_is_told_as_one_sentence_whatever_is_in_it(string kind)
    {
        for (var seed = 0; seed < 40; seed++)
            foreach (var withOptional in new[] { true, false })
            {
                var told = new MadeUp(seed, withOptional).Body(Named(kind)).Told();
                told.Length.ShouldBeGreaterThan(1);
                told.ShouldNotContain("Nailcrow.");
                told.ShouldNotContain("System.");
                told.ShouldNotContain(" { "); // a record's own text is no sentence
            }
    }

    [Fact]
    public void Numbers_beyond_what_json_keeps_exactly_are_believed_as_they_will_be_read()
    {
        const long Odd = (1L << 53) + 1; // RFC 8785 writes numbers as doubles do

        var entry = Played
            .Reported()
            .Record.Next(new(Guid.CreateVersion7(), Some.Noon, 0, Played.Sefa, new PartReserved(Some.New, "C8", Odd, "Stores")), Some.Noon);

        ((PartReserved)entry.Body).Bytes.ShouldBe(Odd - 1);
    }
}
