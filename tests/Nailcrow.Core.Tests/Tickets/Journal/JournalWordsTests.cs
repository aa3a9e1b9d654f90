using CsCheck;
using Nailcrow.Core.Swaps.Seen;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Reading;

namespace Nailcrow.Core.Tests.Tickets.Journal;

/// <summary>The words that releases tell each other: all that can be written is in words that this one reads.</summary>
public class JournalWordsTests
{
    public static TheoryData<string> Kinds => EveryKindTests.Kinds;

    [Theory, MemberData(nameof(Kinds))]
    public void Whatever_stands_in_an_entry_is_in_words_that_this_release_reads(string kind)
    {
        var type = MadeUp.Kinds.Single(k => k.Name == kind);
        Gen.Int.Sample(
            seed =>
            {
                var words = JournalWords.Of(new MadeUp(seed).Body(type));

                words.Except(JournalWords.All).ShouldBeEmpty();
                words.ShouldContain(word => EntryKinds.Known.Contains(word));
            },
            iter: 50
        );
    }

    [Fact]
    public void A_field_and_a_choice_are_words_as_a_kind_is()
    {
        JournalWords.Of(new SnapshotTaken(Some.Snapshot())).ShouldBeSubsetOf(JournalWords.All);
        JournalWords.All.ShouldContain("note-written");
        JournalWords.All.ShouldContain("note-written.text");
        JournalWords.All.ShouldContain("snapshot-taken.snapshot.bays.role=filling");
        JournalWords.All.Where(w => w.Count(c => c == '.') > 12).ShouldBeEmpty("what goes round in itself is named once");
    }
}
