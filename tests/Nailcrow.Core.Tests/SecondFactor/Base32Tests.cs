using System.Text;
using Nailcrow.Core.People.SecondFactor;

namespace Nailcrow.Core.Tests.SecondFactor;

/// <summary>The vectors of RFC 4648, section 10, without their padding.</summary>
public sealed class Base32Tests
{
    [Theory]
    [InlineData("", "")]
    [InlineData("f", "MY")]
    [InlineData("fo", "MZXQ")]
    [InlineData("foo", "MZXW6")]
    [InlineData("foob", "MZXW6YQ")]
    [InlineData("fooba", "MZXW6YTB")]
    [InlineData("foobar", "MZXW6YTBOI")]
    public void Bytes_are_the_letters_of_the_standard(string bytes, string letters) =>
        Base32.Text(Encoding.ASCII.GetBytes(bytes)).ShouldBe(letters);
}
