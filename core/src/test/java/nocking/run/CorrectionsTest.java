package nocking.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import nocking.channel.RunJson;
import nocking.quantity.Unit;
import nocking.run.Instrument.Language;
import org.junit.jupiter.api.Test;

/** What a certificate says is read with its right sign, and back. */
class CorrectionsTest {
  private static final Unit CELSIUS = Unit.CELSIUS;

  /** Straight between the rows by the two-point form, the departure of the end beyond them. */
  @Test
  void aReadingIsCorrectedByTheRowsAboutIt() {
    Corrections c = Corrections.parse("0.02=0; 25.05=25; 50.11=50", CELSIUS);
    assertThat(c.truth(25.05)).isCloseTo(25, within(1e-12));
    assertThat(c.truth(37.58)).isCloseTo(37.5, within(1e-9));
    assertThat(c.truth(60.11)).isCloseTo(60, within(1e-9));
    assertThat(c.truth(-9.98)).isCloseTo(-10, within(1e-9));
    assertThat(c.says("°C")).isEqualTo("corrected by its certificate, −0.110 … −0.020 °C");
    assertThat(c.covers(50)).isTrue();
    assertThat(c.covers(51)).isFalse();
    Corrections one = Corrections.parse("10.1 = 10", CELSIUS);
    assertThat(one.truth(90.1)).isCloseTo(90, within(1e-9));
    assertThat(one.covers(900)).isTrue();
    assertThat(Corrections.parse("  ", CELSIUS).truth(7)).isEqualTo(7);
  }

  @Test
  void whatIsToBeTrueIsToldAsItIsShown() {
    var random = new Random(1202);
    for (int n = 0; n < 200; n++) {
      var rows = new ArrayList<Corrections.Row>();
      double truth = -50;
      for (int i = 0; i < 1 + random.nextInt(8); i++) {
        truth += 5 + 20 * random.nextDouble();
        rows.add(new Corrections.Row(truth + random.nextDouble() - 0.5, truth));
      }
      var c = new Corrections(rows);
      for (int k = 0; k < 20; k++) {
        double x = -80 + 200 * random.nextDouble();
        assertThat(c.truth(c.shown(x))).isCloseTo(x, within(1e-9));
      }
      assertThat(Corrections.parse(c.typed(), CELSIUS)).isEqualTo(c);
    }
  }

  @Test
  void whatIsNoCertificateIsSaid() {
    assertThatThrownBy(() -> Corrections.parse("0.02; 25", CELSIUS))
        .hasMessage("read '0.02', expected what is shown and what is true then, such as 25.05=25");
    assertThatThrownBy(() -> Corrections.parse("25.05=25; 0.02=0", CELSIUS))
        .hasMessageContaining("0.02=0 stands behind 25.05=25");
    assertThatThrownBy(() -> Corrections.parse("0=0; 10=20; 20=15", CELSIUS))
        .hasMessageContaining("rise");
    assertThatThrownBy(
            () ->
                new Corrections(List.of(new Corrections.Row(Double.MAX_VALUE, -Double.MAX_VALUE))))
        .hasMessageContaining("row 1 of the certificate is no number");
    assertThatThrownBy(() -> Corrections.parse("2 bar=2", CELSIUS))
        .hasMessageContaining("expected a temperature in °C");
  }

  /** Instruments of books that know of none are as they were, to the last byte. */
  @Test
  void aCertificateIsKeptWithItsInstrument() {
    Instrument bare = Instrument.of("Bath probe", Language.SCPI, "bench:1", "READ?", CELSIUS);
    assertThat(RunJson.compact(bare)).doesNotContain("corrections");
    Instrument with = bare.withCorrections(Corrections.parse("0.02=0; 25.05=25", CELSIUS));
    assertThat(RunJson.readInstrument(RunJson.compact(with), "it")).isEqualTo(with);
    assertThat(RunJson.readInstrument(RunJson.compact(bare), "it")).isEqualTo(bare);
    assertThat(bare.withCorrections(Corrections.NONE)).isEqualTo(bare);
    assertThat(List.of(with.withName("x").corrections(), with.withUnit("K").corrections()))
        .containsOnly(with.corrections());
  }
}
