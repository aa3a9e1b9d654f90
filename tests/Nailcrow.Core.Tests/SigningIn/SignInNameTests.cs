using Nailcrow.Core.People.SigningIn;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tests.SigningIn;

public sealed class SignInNameTests
{
    private static readonly string[] There = ["ilka", "tamsel"];

    [Theory]
    [InlineData("norra")]
    [InlineData("n2")]
    [InlineData("anne-marie.holt")]
    public void A_name_of_small_letters_is_taken_as_it_is(string name) =>
        SignInName.Parse($" {name} ", There).ShouldBe(new Parsed<string>.Ok(name));

    [Theory]
    [InlineData(null)]
    [InlineData("")]
    [InlineData("x")]
    [InlineData("Norra")]
    [InlineData("nor ra")]
    [InlineData("-norra")]
    [InlineData("norra.")]
    [InlineData("nörra")]
    [InlineData("nоrra")] // with a Cyrillic o
    [InlineData("norra\u202Earron")]
    public void Any_other_form_is_refused_with_what_is_accepted(string? name) =>
        Reason(SignInName.Parse(name, There))
            .ShouldEndWith(
                "is no name to sign in with; accepted: 2 to 40 of a to z, 0 to 9, dot and hyphen, with a letter or digit at both ends."
            );

    [Theory]
    [InlineData(40, true)]
    [InlineData(41, false)]
    public void A_name_has_at_most_forty_characters(int length, bool taken) =>
        (SignInName.Parse(new string('q', length), There) is Parsed<string>.Ok).ShouldBe(taken);

    [Theory]
    [InlineData("nailcrow")]
    [InlineData("nai1crow")]
    [InlineData("nailcr0w")]
    [InlineData("nailcrovv")]
    [InlineData("nail-crow")]
    [InlineData("nailcrow-service")]
    [InlineData("5ervice")]
    [InlineData("r00t")]
    public void Nobody_is_called_like_the_service(string name) =>
        Reason(SignInName.Parse(name, There)).ShouldStartWith($"'{name}' could be taken for the service itself (");

    [Theory]
    [InlineData("i1ka")]
    [InlineData("il.ka")]
    [InlineData("llka")]
    public void Nobody_is_called_like_somebody_else(string name) =>
        Reason(SignInName.Parse(name, There)).ShouldBe($"'{name}' looks like 'ilka', who is somebody else; choose another name.");

    [Fact]
    public void A_name_is_given_once() =>
        Reason(SignInName.Parse("ilka", There)).ShouldBe("There is a 'ilka' already; names are given once.");

    [Theory]
    [InlineData("Nailcrow")]
    [InlineData("Nаilсrоw")] // with Cyrillic letters
    [InlineData("Νailcrow ")] // with a Greek capital
    [InlineData("Ｎａｉｌｃｒｏｗ")]
    public void A_full_name_is_not_the_services_in_any_letters(string name) =>
        Reason(FullName.Parse(name)).ShouldEndWith("could be taken for the service itself; choose another name.");

    [Fact]
    public void A_full_name_says_what_it_shows() =>
        Reason(FullName.Parse("Norra\u200B Selmark"))
            .ShouldBe("'Norra\\u200B Selmark' has characters in it that nobody sees; leave them out.");

    private static string Reason(Parsed<string> parsed) => parsed.ShouldBeOfType<Parsed<string>.Refused>().Reason;
}
