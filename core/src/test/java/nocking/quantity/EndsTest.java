package nocking.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Ranges as a technician types them. */
class EndsTest {
  private static final Unit KPA = Unit.of("kPa");

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "1V...3V | V | 1 | 3",
        "1V..3V | V | 1 | 3",
        "1V…3V | V | 1 | 3",
        "1 V to 3 V | V | 1 | 3",
        "0.2 … 3.1 V | V | 0.2 | 3.1",
        "200mV...3V | V | 0.2 | 3",
        ".5...1.5 | V | 0.5 | 1.5",
        "-40..85 | °C | -40 | 85",
        "−40 … 85 °C | °C | -40 | 85",
        "4..20mA | A | 0.004 | 0.02",
        "20mA..4mA | A | 0.02 | 0.004",
        "20..4mA | A | 0.02 | 0.004",
        "10..50k | Ω | 10000 | 50000",
        "100..1k | Ω | 100 | 1000",
        "0..50k | Ω | 0 | 50000",
        "0..2*4k7 | Ω | 0 | 9400",
        "1..2*4k7 | Ω | 1 | 9400",
        "10..4k7 | Ω | 10 | 4700",
        "1..2e3 | Ω | 1 | 2000",
        "1..3.3/2 V | V | 1 | 1.65",
        "0 … 15 psi | kPa | 0 | 103.421359",
      })
  void twoEndsInAnyWriting(String text, String unit, double from, double to) {
    Ends e = Ends.typed(text, Unit.of(unit));
    assertThat(e.from().number()).isCloseTo(from, within(1e-6));
    assertThat(e.to().number()).isCloseTo(to, within(1e-6));
  }

  @ParameterizedTest
  @ValueSource(strings = {"", "5", "1..2..3", "1....3", "..", "1..", "..3", "1 - 3", "tomato"})
  void anythingElseIsRefusedWithAnExample(String text) {
    assertThatThrownBy(() -> Ends.typed(text, KPA))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("expected two ends, for example 4 … 14 kPa");
  }

  @Test
  void anOpenEndIsTheWholes() {
    var all = new Span(0, Double.POSITIVE_INFINITY);
    assertThat(Ends.typed("10k..", Unit.OHM, all)).isEqualTo(new Span(10e3, all.high()));
    assertThat(Ends.typed(".. 50k", Unit.OHM, all)).isEqualTo(new Span(0, 50e3));
    assertThat(Ends.typed("10k to 50k", Unit.OHM, all)).isEqualTo(new Span(10e3, 50e3));
    assertThatThrownBy(() -> Ends.typed("50k..10k", Unit.OHM, all))
        .hasMessageContaining("must rise");
  }

  @ParameterizedTest
  @ValueSource(strings = {"1%", "1 %", "500ppm", "2 mV/V"})
  void aShareIsNoPressure(String text) {
    assertThatThrownBy(() -> QuantityParser.value(text, KPA))
        .hasMessageContaining("is a share; expected a pressure in kPa");
  }

  @Test
  void aToleranceInPercentIsOneOfTheSpan() {
    Unit psi = Unit.of("psi");
    Value v = Value.tolerance("1%", psi, 150);
    assertThat(v.number()).isCloseTo(1.5, within(1e-12));
    assertThat(v.typed()).isEqualTo("1%");
    assertThat(v.needsMeaning(psi)).isTrue();
    // A wiper at 5 % of its track is a plain share, which needs no second saying.
    assertThat(Value.typed("5%", Unit.ONE).needsMeaning(Unit.ONE)).isFalse();
    assertThat(v.forSpan(psi, 100).number()).isCloseTo(1, within(1e-12));
    assertThat(Value.tolerance("0.3", psi, 150).forSpan(psi, 9).number()).isEqualTo(0.3);
    // Where the quantity itself is in percent, a percent is one of its units.
    assertThat(Value.tolerance("1%", Unit.PERCENT, 80).number()).isEqualTo(1);
  }
}
