using CsCheck;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tests.Terms;

/// <summary>Serials that may be taken for each other on a worn label: whoever takes one in as new is asked about the other.</summary>
public class LookAlikeTests
{
    // Written down here once more.
    private static readonly string[] Confused = ["0OQD", "1IL", "2Z", "5S", "6G", "8B"];

    private static readonly Gen<string> Serials = Gen.Char["ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789"].Array[4, 16].Select(c => new string(c));

    private static bool AreConfused(char a, char b) => a == b || Confused.Any(group => group.Contains(a) && group.Contains(b));

    [Fact]
    public void Two_look_the_same_where_they_differ_in_nothing_but_what_people_misread() =>
        Gen.Select(Serials, Serials)
            .Sample(
                (a, b) =>
                    (SerialComparison.Looks(a) == SerialComparison.Looks(b)).ShouldBe(
                        a.Length == b.Length && a.Zip(b).All(pair => AreConfused(pair.First, pair.Second))
                    )
            );

    [Fact]
    public void However_many_are_misread_it_looks_the_same_and_one_that_nobody_misreads_makes_it_another() =>
        Gen.Select(Serials, Gen.Int[0, 15], Gen.Int)
            .Sample(
                (serial, at, seed) =>
                {
                    var chance = new Random(seed);
                    var misread = string.Concat(
                        serial.Select(c => Confused.FirstOrDefault(g => g.Contains(c)) is { } group ? group[chance.Next(group.Length)] : c)
                    );
                    SerialComparison.Looks(misread).ShouldBe(SerialComparison.Looks(serial));
                    var place = at % serial.Length;
                    var other = serial[place] == 'X' ? 'W' : 'X';
                    SerialComparison.Looks($"{serial[..place]}{other}{serial[(place + 1)..]}").ShouldNotBe(SerialComparison.Looks(serial));
                }
            );

    [Theory]
    [InlineData("C8PLAYOOO1", "C8PLAY0001")]
    [InlineData("cdr-12t0046i57", "CDR12TO046157")]
    public void As_people_write_it(string read, string was) => SerialComparison.Looks(read).ShouldBe(SerialComparison.Looks(was));
}
