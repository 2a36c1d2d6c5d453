package nocking.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.List;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class SetPointsTest {
  private static final Unit KPA = Unit.of("kPa");

  private static double[] read(String text) {
    return SetPoints.parse(text, KPA).stream().mapToDouble(Value::number).toArray();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "0…60 / 20 | 0 20 40 60",
        "0..1/0.25 | 0 0.25 0.5 0.75 1",
        "0 to 50 / 20 | 0 20 40 50",
        "60…0 / 30 | 60 30 0",
        "-1...1 / 1 | -1 0 1",
        "0…0.3 / 0.1 | 0 0.1 0.2 0.3",
        "0…1 bar / 50 kPa | 0 50 100",
        "5, 10; 12.5 | 5 10 12.5",
        "25 psi | 172.36893232917"
      })
  void setPointsAreReadAsTheyAreTyped(String text, String expected) {
    assertThat(read(text))
        .usingComparatorWithPrecision(1e-9)
        .containsExactly(
            Arrays.stream(expected.split(" ")).mapToDouble(Double::parseDouble).toArray());
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "5,,6",
        "0…60",
        "0…60 / 0",
        "1…2…3 / 1",
        "0…1e9 / 1",
        "x",
        "0…60 / 10 V",
        "10%"
      })
  void whatIsNoSetPointIsSaid(String text) {
    assertThatThrownBy(() -> read(text)).isInstanceOf(QuantityException.class);
  }

  /** What is shown is what would be typed. */
  @ParameterizedTest
  @ValueSource(strings = {"0…60 / 20", "60…0 / 20", "0, 5, 7.5, 30", "0, 5", "0…0.3 / 0.1"})
  void whatIsShownIsWhatWouldBeTyped(String text) {
    List<Value> points = SetPoints.parse(text, KPA);
    assertThat(SetPoints.text(points)).isEqualTo(text);
  }

  @Test
  void aSlipIsOneOfTens() {
    assertThat(Slip.of(15.5, 1.551)).hasValueSatisfying(s -> assertThat(s).contains("×10"));
    assertThat(Slip.of(0.001551, 1.55)).hasValueSatisfying(s -> assertThat(s).contains("÷1000"));
    assertThat(Slip.of(1.6, 1.55)).isEmpty();
    assertThat(Slip.of(8, 1)).isEmpty();
    assertThat(Slip.of(-15.5, 1.55)).isEmpty();
    assertThat(Slip.of(1, 0)).isEmpty();
    assertThat(Slip.of(0, 1)).isEmpty();
  }
}
