using System.Text;
using System.Text.Json;
using Nailcrow.Core.Terms;

namespace Nailcrow.Core.Tests;

/// <summary>What a stranger sends is read as a whole or not at all, and not found to be broken by whoever looks at what is beside it.</summary>
public sealed class WholeJsonTests
{
    [Theory]
    [InlineData("{\"a\":[1,\"é😀\\ud83d\\ude00\",null]}")]
    [InlineData("\"\\\\ud800\"")]
    [InlineData("7")]
    public void What_is_whole_is_read(string text)
    {
        using var json = WholeJson.Parse(Encoding.UTF8.GetBytes(text));
        json.RootElement.GetRawText().ShouldBe(text);
    }

    [Theory]
    [InlineData("{\"a\":\"\\ud800\"}")]
    [InlineData("{\"a\":\"\\udc00x\"}")]
    [InlineData("{\"\\ud800\":1}")]
    [InlineData("{\"a\":{\"b\":[\"x\",\"\\ud83dx\"]}}")]
    [InlineData("{\"a\":1")]
    [InlineData("")]
    [InlineData("[[[[[1]]]]]")]
    public void What_is_not_is_no_JSON(string text) =>
        Should.Throw<JsonException>(() => WholeJson.Parse(Encoding.UTF8.GetBytes(text), maxDepth: 4));

    [Fact]
    public void Nor_are_bytes_that_are_no_text() =>
        Should.Throw<JsonException>(() => WholeJson.Parse(new byte[] { 0x22, 0x61, 0xff, 0x22 }));
}
