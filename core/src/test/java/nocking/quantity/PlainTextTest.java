package nocking.quantity;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a name may do once it is shown: stand there. */
class PlainTextTest {
  @ParameterizedTest
  @ValueSource(
      strings = {
        "Header tank, 4–20 mA",
        "°C Ω µ β ² ±",
        "حوض \u200c\u200d",
        "水槽",
        "\ud83d\ude00",
        "a\tb\nc",
        ""
      })
  void wordsOfAnyLanguageStayAsTheyAre(String text) {
    assertThat(PlainText.of(text)).isEqualTo(text);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "\u001b",
        "\u0007",
        "\u0000",
        "\u007f",
        "\u009b",
        "\r",
        "\u202e",
        "\u2066",
        "\u200f",
        "\u2028",
        "\ufeff",
        "\ud83d",
        "\ude00",
        "\udb40\udc41",
        "\u00ad"
      })
  void whatIsNoTextIsReplaced(String odd) {
    assertThat(PlainText.of("a" + odd + "b")).isEqualTo("a\uFFFDb");
  }

  @Test
  void endsOfLinesAreEndsOfLinesOrBlanks() {
    assertThat(PlainText.of("a\r\nb")).isEqualTo("a\nb");
    assertThat(PlainText.line("a\r\nb\tc\u2028d\u0085e")).isEqualTo("a b c d e");
  }

  @Test
  void aCommentIsNotEndedAndNotBegun() {
    assertThat(PlainText.comment("a */ b /* c */*/ ??/ \\"))
        .isEqualTo("a * / b / * c * / * / ? ?/ /");
    assertThat(PlainText.comment("/*/*/")).isEqualTo("/ * / * /");
    assertThat(PlainText.comment("????")).isEqualTo("? ? ? ?");
  }

  /** Whatever is written into a comment, its end stands only where it was meant. */
  @Test
  void noCommentHoldsItsOwnEnd() {
    String alphabet = "*/?\\\n\r\"'#a ";
    for (int seed = 0; seed < 2000; seed++) {
      var r = new Random(seed);
      var text = new StringBuilder();
      for (int i = r.nextInt(12); i >= 0; i--)
        text.append(alphabet.charAt(r.nextInt(alphabet.length())));
      assertThat(PlainText.comment(text.toString()))
          .as("seed %d", seed)
          .doesNotContain("*/", "/*", "??", "\\", "\n", "\r");
    }
  }

  @Test
  void jsonMeansTheSame() {
    assertThat(PlainText.json("{\"a\":\"\u202e\u009bx\r\udb40\udc41\"}"))
        .isEqualTo("{\"a\":\"\\u202E\\u009Bx\\r\\uDB40\\uDC41\"}");
  }
}
