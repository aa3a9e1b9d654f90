using System.Text;
using System.Text.Json;
using CsCheck;
using Nailcrow.Core.Returns;
using Nailcrow.Core.Returns.Ending;
using Nailcrow.Core.Returns.Issuing;
using Nailcrow.Core.Returns.Ledger;
using Nailcrow.Core.Tickets.Journal.Canonical;

namespace Nailcrow.Core.Tests.Returns;

/// <summary>A line of the ledger that is read straight from its text is the line that its types read, and what they refuse it refuses.</summary>
public class MovementReaderTests
{
    private static readonly Gen<string?> Words = Gen.OneOf(Gen.Const((string?)null), Gen.String[0, 12].Select(s => (string?)s));

    private static readonly Gen<Holder?> Holders = Gen.OneOf(
        Gen.Const((Holder?)null),
        Gen.Select(Gen.Enum<HolderKind>(), Gen.String[0, 12], Words, (kind, name, shelf) => (Holder?)new Holder(kind, name, shelf))
    );

    private static readonly Gen<DateTimeOffset> Times = Gen.Long[0, 4_000_000_000_000].Select(DateTimeOffset.FromUnixTimeMilliseconds);

    // As far as canonical JSON has every whole number.
    private static readonly Gen<long> Exact = Gen.Long[-9_007_199_254_740_991, 9_007_199_254_740_991];

    private static readonly Gen<Movement> Any = Gen.Select(
            Gen.Select(Gen.Guid, Gen.String[0, 12], Gen.Enum<MovementKind>(), Times, Gen.String[0, 9], Holders),
            Gen.Select(Exact, Words, Gen.Guid, Gen.Bool, Gen.Int, Holders),
            Gen.Select(Words, Gen.Enum<NoReplacement>(), Gen.Enum<InspectionFinding>(), Exact, Gen.Bool, Gen.Int[0, 80_000])
        )
        .Select(
            (one, two, three) =>
                new Movement(
                    one.Item1,
                    one.Item2,
                    one.Item3,
                    one.Item4,
                    one.Item5,
                    one.Item6,
                    two.Item4 ? two.Item1 : null,
                    two.Item2,
                    two.Item4 ? null : two.Item3,
                    two.Item4 ? two.Item3 : null,
                    two.Item4 ? new PartData(one.Item2, two.Item1, two.Item5, two.Item2) : null,
                    two.Item6 is { } to
                        ? new Announcement(to, new DateOnly(2026, 1, 1).AddDays(three.Item6 % 9_000), two.Item2, three.Item1)
                        : null,
                    three.Item1,
                    three.Item5 ? three.Item2 : null,
                    three.Item5 ? null : three.Item3,
                    two.Item4 ? three.Item5 : null
                )
                {
                    Seq = three.Item4,
                    RecordedAt = one.Item4.AddHours(1),
                }
        );

    private static Movement? ByTypes(string text)
    {
        try
        {
            return JsonSerializer.Deserialize(text, JournalJson.Default.Movement);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    [Fact]
    public void Whatever_a_line_says_both_read_the_same() =>
        Any.Sample(
            movement =>
            {
                var text = MovementText.Of(movement);
                return MovementText.Read(text) == ByTypes(text) && MovementText.Read(text) == movement;
            },
            iter: 20_000
        );

    /// <summary>A character gone, doubled or another: mostly no line any more, and never one that says something else.</summary>
    [Fact]
    public void Whatever_was_done_to_a_line_both_read_the_same_or_nothing() =>
        Gen.Select(Any, Gen.Int[0, 2_000], Gen.Int[0, 3], Gen.Int[0, 9].Select(n => "\"{}:,0n \\-"[n]))
            .Sample(
                (movement, at, how, other) =>
                {
                    var text = MovementText.Of(movement);
                    at %= text.Length;
                    var spoilt = how switch
                    {
                        0 => text.Remove(at, 1),
                        1 => text.Insert(at, text[at].ToString()),
                        2 => text[..at],
                        _ => text[..at] + other + text[(at + 1)..],
                    };
                    MovementText.Read(spoilt).ShouldBe(ByTypes(spoilt), spoilt);
                },
                iter: 20_000
            );

    [Theory]
    [InlineData("")]
    [InlineData("null")]
    [InlineData("[]")]
    [InlineData("{}")]
    [InlineData("{\"serial\":7}")]
    [InlineData("{} {}")]
    public void What_is_no_line_is_none(string text) => MovementText.Read(text).ShouldBeNull();

    /// <summary>It would be right without it, and slow: twenty million lines are read by it in a balance.</summary>
    [Fact]
    public void What_we_write_ourselves_is_never_left_to_the_types()
    {
        var plain = Any.Where(m => Escapes.All(c => !MovementText.Of(m).Contains(c)));
        plain.Sample(m => MovementReader.Read(Encoding.UTF8.GetBytes(MovementText.Of(m))) == m, iter: 5_000);
    }

    private const string Escapes = "\\";

    /// <summary>Each of these is a line by its types or is none, and the cursor leaves every one of them to them.</summary>
    [Theory]
    [InlineData("\"at\":\"2026-11-20T12:00:00+00:00\"", "\"at\":\"2026-02-29T12:00:00+00:00\"")]
    [InlineData("\"at\":\"2026-11-20T12:00:00+00:00\"", "\"at\":\"2026-11-20T24:00:00+00:00\"")]
    [InlineData("\"at\":\"2026-11-20T12:00:00+00:00\"", "\"at\":\"2026-11-20T12:60:00+00:00\"")]
    [InlineData("\"at\":\"2026-11-20T12:00:00+00:00\"", "\"at\":\"2026-11-20T12:00:00+01:00\"")]
    [InlineData("\"at\":\"2026-11-20T12:00:00+00:00\"", "\"at\":\"2026-11-20T12:00:00Z\"")]
    [InlineData("\"at\":\"2026-11-20T12:00:00+00:00\"", "\"at\":\"2026-11-20T12:00:00.+00:00\"")]
    [InlineData("\"at\":\"2026-11-20T12:00:00+00:00\"", "\"at\":\"2026-11-20T12:00:00.12345678+00:00\"")]
    [InlineData("\"at\":\"2026-11-20T12:00:00+00:00\"", "\"at\":\"0000-11-20T12:00:00+00:00\"")]
    [InlineData("\"seq\":4", "\"seq\":04")]
    [InlineData("\"seq\":4", "\"seq\":4e0")]
    [InlineData("\"seq\":4", "\"seq\":9223372036854775808")]
    [InlineData("\"seq\":4", "\"seq\": 4")]
    [InlineData("\"seq\":4", "\"seq\":4,\"seq\":5")]
    [InlineData("\"seq\":4", "\"seq\":null")]
    [InlineData("\"kind\":\"came\"", "\"kind\":\"CAME\"")]
    [InlineData("\"kind\":\"came\"", "\"kind\":\"eaten\"")]
    [InlineData("\"by\":\"sefa\"", "\"by\":\"se\tfa\"")]
    [InlineData("\"by\":\"sefa\"", "\"by\":\"se\\u0066a\"")]
    [InlineData("\"by\":\"sefa\",", "")]
    [InlineData("}}", "}} ")]
    public void What_is_written_otherwise_is_left_to_the_types(string ours, string otherwise)
    {
        var line = new Movement(Guid.NewGuid(), "P8AAAA0001", MovementKind.Came, Noon, "sefa", new(HolderKind.Depot, "Stores")) { Seq = 4 };
        var text = MovementText.Of(line);
        MovementReader.Read(Encoding.UTF8.GetBytes(text)).ShouldBe(line);
        text.ShouldContain(ours);

        var other = text.Replace(ours, otherwise, StringComparison.Ordinal);

        MovementReader.Read(Encoding.UTF8.GetBytes(other)).ShouldBeNull();
        MovementText.Read(other).ShouldBe(ByTypes(other));
    }

    private static readonly DateTimeOffset Noon = new(2026, 11, 20, 12, 0, 0, TimeSpan.Zero);

    [Fact]
    public void Bytes_that_are_no_text_are_no_line()
    {
        var text = Encoding.UTF8.GetBytes(
            MovementText.Of(new(Guid.NewGuid(), "P8AAAA0001", MovementKind.Came, Noon, "sefa", new(HolderKind.Depot, "Stores")))
        );
        text[text.AsSpan().IndexOf("sefa"u8)] = 0xff;

        MovementText.Read(text).ShouldBeNull();
    }

    [Fact]
    public void What_a_later_version_adds_is_passed_over()
    {
        var text = MovementText.Of(
            new(Guid.NewGuid(), "P8AAAA0001", MovementKind.Came, Some.Noon, "sefa", new(HolderKind.Depot, "Stores"))
        );

        var later = text.Replace("\"serial\"", "\"colour\":{\"of\":[1,{\"id\":2}]},\"none\":null,\"serial\"");

        MovementText.Read(later).ShouldBe(MovementText.Read(text));
    }
}
