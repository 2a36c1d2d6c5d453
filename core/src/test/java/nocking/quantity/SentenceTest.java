package nocking.quantity;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Sentences begin with a capital, units and symbols keep theirs, quotations keep their length. */
class SentenceTest {
  @ParameterizedTest
  @CsvSource({
    "sensor gives nothing, Sensor gives nothing",
    "mV/V is expected, mV/V is expected",
    "β of the thermistor, β of the thermistor",
    "kPa and psi, kPa and psi",
    "psi and kPa, psi and kPa",
    "in the middle, In the middle",
    "a wire, A wire",
    "Rf of the amplifier, Rf of the amplifier",
    "3 points, 3 points",
    "'', ''"
  })
  void onlyAWordGetsACapital(String words, String beginning) {
    assertThat(Sentence.capital(words)).isEqualTo(beginning);
  }

  @Test
  void whatIsQuotedIsCutAndNeverMovesTheCursor() {
    assertThat(Sentence.readable("read '" + "9".repeat(61) + "', expected a number"))
        .isEqualTo("read '" + "9".repeat(60) + "…', expected a number");
    assertThat(Sentence.readable("read '" + "9".repeat(60) + "'")).doesNotContain("…");
    assertThat(Sentence.readable("read '\u001b[2J\u0007\u202e'"))
        .isEqualTo("read '\uFFFD[2J\uFFFD'");
    assertThat(Sentence.readable("it has " + "column, ".repeat(500))).hasSizeLessThanOrEqualTo(600);
  }

  @Test
  void oneIsNotSeveral() {
    assertThat(Sentence.count(0, "row")).isEqualTo("0 rows");
    assertThat(Sentence.count(1, "row")).isEqualTo("1 row");
    assertThat(Sentence.count(2, "row")).isEqualTo("2 rows");
  }
}
