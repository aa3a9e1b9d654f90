using Nailcrow.Core.Procedures.Conditions;

namespace Nailcrow.Core.Tests.Procedures;

public class ConditionTests
{
    private static readonly Dictionary<string, FactType> Facts = new()
    {
        ["model.loading"] = new FactType.OneOf(["front", "top", "drawer"]),
        ["model.cover-limit"] = new FactType.Number(Dimension.Time),
        ["answer.backup"] = new FactType.OneOf(["yes", "no", "unanswered"]),
        ["answer.who"] = new FactType.Text(),
    };

    private static Condition Read(string text) =>
        ConditionParser.Parse(text, Facts) is ({ } read, null, _)
            ? read
            : throw new InvalidDataException(ConditionParser.Parse(text, Facts).Problem);

    [Theory]
    [InlineData("model.loading is front", true)]
    [InlineData("model.loading is not front", false)]
    [InlineData("model.loading is one of top, drawer", false)]
    [InlineData("model.cover-limit is at least 5 min", true)]
    [InlineData("model.cover-limit is above 5 min", false)]
    [InlineData("model.cover-limit is below 0.1 h", true)]
    [InlineData("model.cover-limit is 300", true)]
    [InlineData("not model.loading is front or answer.backup is no", true)]
    [InlineData("not (model.loading is front or answer.backup is no)", false)]
    [InlineData("model.loading is top and answer.backup is no or model.cover-limit is at most 300 s", true)]
    public void A_condition_is_read_as_it_is_said(string text, bool holds) =>
        Read(text)
            .Holds(fact =>
                fact switch
                {
                    "model.loading" => "front",
                    "model.cover-limit" => "300",
                    _ => "no",
                }
            )
            .ShouldBe(holds);

    [Theory]
    [InlineData(
        "model.loding is front",
        "'model.loding' is no fact. Did you mean 'model.loading'? Accepted: model.loading, model.cover-limit.",
        0
    )]
    [InlineData("loading is front", "'loading' is no fact. Accepted: model.…, ticket.… or answer.… and the id of an earlier step.", 0)]
    [InlineData("model.loading is frond", "'model.loading' is never 'frond'. Did you mean 'front'? Accepted: front, top, drawer.", 17)]
    [InlineData("model.loading front", "'front' stands here; expected 'is' after 'model.loading'.", 14)]
    [InlineData("model.loading is", "The condition ends here; expected one of front, top, drawer.", 16)]
    [InlineData(
        "model.cover-limit is 5 GB",
        "'GB' does not measure time; accepted: a number with s, min, h, d. ('model.cover-limit' is above, below, at least or at most a number.)",
        21
    )]
    [InlineData("model.cover-limit is at 5", "'5' stands here; expected 'least' or 'most' after 'at'.", 24)]
    [InlineData("(model.loading is front", "The condition ends here; expected ')'.", 23)]
    [InlineData("model.loading is front answer.backup is no", "'answer.backup' is one word too many; expected 'and', 'or' or the end.", 23)]
    [InlineData(
        "answer.who is ilka",
        "'answer.who' is free text, which is kept and compared to nothing; ask it with 'look' and answers, or give it a 'unit'.",
        0
    )]
    public void A_mistake_is_told_at_its_character_with_what_was_expected(string text, string problem, int at) =>
        ConditionParser.Parse(text, Facts).ShouldBe((null, problem, at));

    [Fact]
    public void What_is_known_is_settled_and_what_is_left_is_said_in_the_same_words()
    {
        var left = Read("(model.loading is front or answer.backup is no) and answer.backup is not yes")
            .Settled(fact => fact == "model.loading" ? "top" : null);

        left.ToString().ShouldBe("answer.backup is no and answer.backup is not yes");
        Read(left.ToString()).ToString().ShouldBe(left.ToString());
    }

    [Fact]
    public void A_condition_of_ten_thousand_brackets_is_refused_and_not_followed() =>
        ConditionParser.Parse(new string('(', 150), Facts).Problem.ShouldBe("Brackets and 'not' go at most 20 deep.");
}
