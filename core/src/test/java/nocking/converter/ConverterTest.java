package nocking.converter;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Volts and codes of a converter that rounds down. */
class ConverterTest {

  /** Every code is found again from the middle of its step, and no step is wider than another. */
  @ParameterizedTest
  @CsvSource({"4, 1.0", "8, 5.0", "10, 3.3", "12, 3.3", "16, 2.5"})
  void codesComeBackFromTheMiddleOfTheirStep(int bits, double reference) {
    Converter c = Converter.of(bits, reference);
    int most = (1 << bits) - 1;
    assertThat(c.codes()).isEqualTo(most + 1);
    for (int code = 0; code <= most; code++) {
      assertThat(c.code(c.volts(code))).isEqualTo(code);
      // Just inside both edges of the step.
      assertThat(c.code(code * c.step() + c.step() / 1e6)).isEqualTo(code);
      assertThat(c.code((code + 1) * c.step() - c.step() / 1e6)).isEqualTo(code);
    }
  }

  @Test
  void outsideTheRangeStandsTheEndCode() {
    Converter c = Converter.of(12, 3.3);
    assertThat(c.code(-1)).isZero();
    assertThat(c.code(3.3)).isEqualTo(4095);
    assertThat(c.code(1e9)).isEqualTo(4095);
    assertThat(c.code(Double.NEGATIVE_INFINITY)).isZero();
    assertThat(c.code(Double.POSITIVE_INFINITY)).isEqualTo(4095);
  }

  /** Four readings make one bit more, sixteen two, and five still one. */
  @ParameterizedTest
  @CsvSource({"1, 12", "3, 12", "4, 13", "5, 13", "16, 14", "64, 15", "256, 16"})
  void oversamplingAddsABitForEveryFourfold(double times, int bits) {
    Converter c = new Converter(v(12), v(3.3), null, null, null, null, v(times), null);
    assertThat(c.effectiveBits()).isEqualTo(bits);
    assertThat(c.step()).isCloseTo(3.3 / (1 << bits), within(1e-15));
    assertThat(c.ownStep()).isCloseTo(3.3 / 4096, within(1e-15));
    assertThat(c.summary()).isEqualTo("12 bit × %.0f, 3.30 V".formatted(times));
  }

  /** 0.1 % of reading, 2 counts of offset and 1 of non-linearity at 3 V of 3.3. */
  @Test
  void errorsOfTheConverterAddUp() {
    Converter c = new Converter(v(12), v(3.3), null, v(0.1), v(2), v(1), null, null);
    assertThat(c.errorLimit(3)).isCloseTo(0.003 + 3 * 3.3 / 4096, within(1e-12));
    assertThat(c.errorLimit(-3)).isEqualTo(c.errorLimit(3));
    assertThat(c.gainLimit(3)).isCloseTo(0.003, within(1e-12));
    assertThat(Converter.of(12, 3.3).errorLimit(3)).isZero();
    assertThat(Converter.of(12, 3.3).summary()).isEqualTo("12 bit, 3.30 V");
  }

  @ParameterizedTest
  @ValueSource(doubles = {3, 25, 12.5, -1})
  void bitsThatNoConverterHasAreRefused(double bits) {
    Converter c = Converter.of(Value.of(bits), v(3.3), null);
    assertThatThrownBy(() -> c.require(Unit.VOLT))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("Bits");
  }
}
