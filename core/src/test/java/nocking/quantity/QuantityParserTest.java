package nocking.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Random;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A number field understands what a technician types, and says why when it does not. */
class QuantityParserTest {

  @ParameterizedTest
  @CsvSource({
    "4k7, Ω, 4700",
    "12.1k, Ω, 12100",
    "2*4k7, Ω, 9400",
    "4R7, Ω, 4.7",
    "2M2, Ω, 2200000",
    "4k7 || 10k, Ω, 3197.27891156463",
    "4.7 k, Ω, 4700",
    "10 kohm, Ω, 10000",
    "3.3/2 V, V, 1.65",
    "3.3 V/2, V, 1.65",
    "530 mV, V, 0.53",
    "530m, V, 0.53",
    "-40, °C, -40",
    "-40 degF, °C, -40",
    "77 degF, °C, 25",
    "300 K, °C, 26.85",
    "25 psi, kPa, 172.368932329209",
    "1 bar, kPa, 100",
    "1 inHg, Pa, 3386.388640341",
    "1 inH2O, Pa, 249.08891",
    "220 mm, m, 0.22",
    "1 in, mm, 25.4",
    "5 %, %, 5",
    "5, %, 5",
    "1e-3, V, 0.001",
    "(3.3 - 0.3)/2, V, 1.5",
    "20 mV, mV, 20",
    "2 mg/L, mg/L, 2",
    "sqrt(2), V, 1.4142135623731",
    "4 m, m, 4"
  })
  void readsWhatIsTyped(String text, String unit, double expected) {
    assertThat(QuantityParser.value(text, Unit.of(unit)))
        .isCloseTo(expected, Percentage.withPercentage(1e-10));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "abc | Ω | 'abc' is neither a unit nor a symbol here",
        "4.7x | Ω | 'x' is no unit that Nocking knows, such as kPa, psi, degC, mV or kg",
        "25 psi | V | '25 psi' is a pressure; expected a voltage in V",
        "1 + 2 V | Ω | a voltage cannot be added to a plain number",
        "1,5 | V | '1,5' has a comma; write decimals with a point",
        "1/0 | V | this divides by zero",
        "(1 | V | read the end where a closing bracket was expected",
        "1 2 | V | read '2' where an operator was expected",
        "1..2 | V | '1..2' is not a number",
        "1e999 | V | '1e999' has no finite value",
        "'' | V | this is empty; expected a voltage in V",
        "5 V V | V | read 'V' where an operator was expected"
      })
  void saysWhyNot(String text, String unit, String sentence) {
    assertThatThrownBy(() -> QuantityParser.value(text, Unit.of(unit)))
        .isInstanceOf(QuantityException.class)
        .hasMessage(sentence);
  }

  @Test
  void temperaturesAddAsTheHandDoes() {
    Unit celsius = Unit.of("degC");
    assertThat(QuantityParser.evaluate("25 degC + 10 degC").in(celsius))
        .isCloseTo(35, Percentage.withPercentage(1e-12));
    assertThat(QuantityParser.evaluate("25 degC - 10 degC").in(celsius))
        .isCloseTo(15, Percentage.withPercentage(1e-12));
    assertThat(QuantityParser.evaluate("25 degC * 20 mV/degC").in(Unit.VOLT))
        .isCloseTo(0.5, Percentage.withPercentage(1e-12));
  }

  @Test
  void whatWasTypedIsKept() {
    Value v = Value.typed(" 25 psi ", Unit.of("kPa"));
    assertThat(v.typed()).isEqualTo("25 psi");
    assertThat(v.needsMeaning(Unit.of("kPa"))).isTrue();
    assertThat(Value.typed("530 mV", Unit.VOLT).needsMeaning(Unit.VOLT)).isFalse();
    assertThat(Value.typed("4k7", Unit.OHM).needsMeaning(Unit.OHM)).isFalse();
    assertThat(Value.typed("2*4k7", Unit.OHM).needsMeaning(Unit.OHM)).isTrue();
    assertThat(Value.of(42).needsMeaning(Unit.VOLT)).isFalse();
  }

  @ParameterizedTest
  @CsvSource({
    "0.5424, V, 4, 542.4 mV",
    "15720, Ω, 4, 15.72 kΩ",
    "0.99996, V, 4, 1.000 V",
    "-0.0027, V, 2, -2.7 mV",
    "0, V, 3, 0 V",
    "0.00080566, V, 4, 805.7 µV"
  })
  void writesWithPrefixes(double si, String unit, int digits, String text) {
    assertThat(Numbers.engineering(si, unit, digits)).isEqualTo(text);
  }

  /** A value and its limit, and the two ends of a range, are in one unit: compared at a glance. */
  @Test
  void writesWhatBelongsTogetherInOneUnit() {
    assertThat(Numbers.withLimit(4.5801, 0.1123, "V")).isEqualTo("4.58 V ±0.11");
    assertThat(Numbers.withLimit(5, 0.1, "V")).isEqualTo("5.00 V ±0.10");
    assertThat(Numbers.withLimit(0, 0.02, "V")).isEqualTo("0 mV ±20");
    assertThat(Numbers.withLimit(-0.00183, 0.00012, "V")).isEqualTo("-1.83 mV ±0.12");
    assertThat(Numbers.withLimit(230, 9.96, "V")).isEqualTo("230 V ±10");
    assertThat(Numbers.between(4.574, 0.4203, "V")).isEqualTo("4.57 … 0.42 V");
    assertThat(Numbers.between(0, 0.0273, "V")).isEqualTo("0.0 … 27.3 mV");
    assertThat(Numbers.between(-9.996, 9.996, "V")).isEqualTo("-10.0 … 10.0 V");
  }

  @Test
  void signsErrorsAndNeverShowsMinusZero() {
    assertThat(Numbers.signed(0.1, 2)).isEqualTo("+0.10");
    assertThat(Numbers.signed(-0.001, 2)).isEqualTo("0.00");
    assertThat(Numbers.fixed(-0.001, 2)).isEqualTo("0.00");
    assertThat(Numbers.plain(0.1 + 0.2)).isEqualTo("0.30000000000000004");
  }

  /**
   * A prefix moves the point; the number that comes out is the double nearest to what was typed.
   */
  @Test
  void prefixesRoundOnce() {
    var random = new Random(350);
    for (int i = 0; i < 2000; i++) {
      String digits = String.valueOf(random.nextInt(10_000_000));
      assertThat(QuantityParser.value(digits + " mV", Unit.VOLT))
          .isEqualTo(Double.parseDouble(digits + "e-3"));
      assertThat(QuantityParser.value(digits + "u", Unit.VOLT))
          .isEqualTo(Double.parseDouble(digits + "e-6"));
      assertThat(QuantityParser.value(digits + "n", Unit.of("F")))
          .isEqualTo(Double.parseDouble(digits + "e-9"));
      assertThat(QuantityParser.value(digits + "%", Unit.ONE))
          .isEqualTo(Double.parseDouble(digits + "e-2"));
    }
    assertThat(Unit.of("mV").fromSi(0.35)).isEqualTo(350);
  }

  /** What is shown can be typed back: with a true minus, in front and in the exponent. */
  @Test
  void whatIsShownIsReadBack() {
    var r = new Random(28);
    for (int i = 0; i < 2000; i++) {
      double x = r.nextGaussian() * Math.pow(10, r.nextInt(40) - 20);
      String plain = Numbers.significant(x, 1 + r.nextInt(9));
      double read = QuantityParser.value(plain, Unit.VOLT);
      for (String shown : new String[] {plain.replace('-', '−'), plain.replace("e-", "E−")}) {
        assertThat(QuantityParser.value(shown, Unit.VOLT)).as(shown).isEqualTo(read);
        assertThat(QuantityParser.value(shown + " V", Unit.VOLT)).as(shown).isEqualTo(read);
        assertThat(Value.typed(shown + " V", Unit.VOLT).number()).as(shown).isEqualTo(read);
      }
    }
    assertThat(QuantityParser.value("−1.2E−5 V", Unit.of("mV"))).isEqualTo(-0.012);
    assertThat(QuantityParser.value("5−3", Unit.ONE)).isEqualTo(2);
    assertThat(QuantityParser.value("2e3−1", Unit.ONE)).isEqualTo(1999);
  }
}
