package nocking.analysis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import nocking.Channels;
import nocking.quantity.QuantityException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The scratch line knows units, parallel resistors and the channel's symbols. */
class ScratchTest {
  private static final Analysis INCUBATOR = Analysis.of(Channels.incubator());
  private static final Analysis BLOWER = Analysis.of(Channels.blower());

  @ParameterizedTest
  @CsvSource({
    "25 psi in kPa, 172.4 kPa",
    "4k7 || 10k, 3197.3",
    "0.16 kg in % of 60 kg, 0.2667 %",
    "Vout at 12 degC, 2.460 V",
    "TP1 at 12 degC, 590.0 mV",
    "Vout at 53.6 degF, 2.460 V",
    "raw at 9, 2048 counts",
    "Rf/Rg, 13.5",
    "Vout, 1.650 V",
    "T, 9 °C",
    "25 degC - 10 degC in degF, 27 °F",
    "5 V * 100k/(100k + 510), 4.975 V",
    "1 V / 1k ohm, 1.000 mA",
    "3 + 4, 7"
  })
  void answers(String line, String answer) {
    assertThat(Scratch.answer(line, INCUBATOR, 9)).isEqualTo(answer);
  }

  @Test
  void symbolsAreThoseOfTheChannel() {
    assertThat(Scratch.answer("R2/(R1+R2)", BLOWER, 30)).isEqualTo("0.66225");
    assertThat(Scratch.answer("reading at 5 psi in psi", BLOWER, 30))
        .as("a whole count is worth 0.004 psi")
        .isEqualTo("4.998 psi");
    assertThatThrownBy(() -> Scratch.answer("R2", INCUBATOR, 9))
        .isInstanceOf(QuantityException.class)
        .hasMessage("'R2' is neither a unit nor a symbol here");
  }
}
