using System.Text.Json;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Journal.Canonical;

namespace Nailcrow.Core.Tests.Tickets.Journal;

public class HashChainTests
{
    private static readonly IReadOnlyList<Entry> Whole = Played.WithSheet().Entries;

    [Fact]
    public void An_untouched_chain_holds() => HashChain.FirstBroken(Whole).ShouldBeNull();

    [Fact]
    public void A_changed_word_a_changed_time_and_a_missing_entry_are_found_where_they_are()
    {
        Entry[] reworded = [Whole[0], Whole[1] with { Text = Whole[1].Text.Replace("ilka", "tamsel") }, .. Whole.Skip(2)];
        Entry[] retimed =
        [
            Whole[0],
            Whole[1],
            Whole[2] with
            {
                Text = EntryText.Of(Whole[2] with { At = Whole[2].At.AddMilliseconds(1) }),
            },
            .. Whole.Skip(3),
        ];

        HashChain.FirstBroken(reworded).ShouldBe(reworded[1]);
        HashChain.FirstBroken(retimed).ShouldBe(retimed[2]);
        HashChain.FirstBroken(Whole.Skip(1)).ShouldBe(Whole[1]);
    }

    [Fact]
    public void An_entry_read_back_from_its_json_has_the_same_hash()
    {
        foreach (var entry in Whole)
        {
            var back = JsonSerializer.Deserialize(JsonSerializer.Serialize(entry, JournalJson.Default.Entry), JournalJson.Default.Entry);
            back!.Hash.ShouldBe(entry.Hash);
            HashChain.Next(entry.Seq == 1 ? HashChain.Start : Whole[(int)entry.Seq - 2].Hash, back.Text).ShouldBe(entry.Hash);
        }
    }

    [Theory]
    [InlineData("""{"b":1,"a":{"z":[true,null],"y":"é\n"}}""", """{"a":{"y":"é\n","z":[true,null]},"b":1}""")]
    [InlineData("""[1.0, 1e3, 0.000001, 1E21, 4.50, -0]""", """[1,1000,0.000001,1e+21,4.5,0]""")]
    public void Canonical_json_sorts_names_and_writes_numbers_one_way(string json, string canonical) =>
        CanonicalJson.Of(JsonDocument.Parse(json).RootElement).ShouldBe(canonical);
}
