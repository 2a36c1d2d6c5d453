package nocking.bench.instrument;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Locale;
import java.util.Random;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.quantity.Unit;
import nocking.run.Instrument;
import nocking.run.Instrument.Language;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What instruments say is read right, or not at all. */
class ReplyTest {
  private static Instrument meter(String unit) {
    return Instrument.of("Meter", Language.LINES, "h:1", "", Unit.of(unit));
  }

  private static Kind refused(Instrument i, String answer) {
    try {
      throw new AssertionError("'%s' was read as %s".formatted(answer, Reply.number(i, answer)));
    } catch (InstrumentException e) {
      return e.kind();
    }
  }

  @ParameterizedTest
  @CsvSource({
    "V, '4.0', 4",
    "V, '+4.00000000E+00', 4",
    "V, '  -.5 ', -0.5",
    "V, '+ 12.34', 12.34",
    "V, '4.0 V', 4",
    "V, '4.0V', 4",
    "V, 'CH1 4.0 V', 4",
    "V, 'ch 12: 4.0', 4",
    "V, 'V=3.3', 3.3",
    "V, 'temp: 3.3', 3.3",
    "V, '4000.0 mV', 4",
    "V, '4000.0mV OK', 4",
    "V, '4.0, OK', 4",
    "V, '4.0 V,stable', 4",
    "V, '0.004 kV', 4",
    "V, '4.0 VDC', 4",
    "V, '4000 mVDC STABLE', 4",
    "V, '4.0 V DC', 4",
    "V, '12:00:01 4.0', 4",
    "V, '2026-04-01 12:00:01.250 4.0 V', 4",
    "V, '2026-04-01T12:00:01Z,4.0', 4",
    "V, '1e-3', 0.001",
    "°C, '21.5 C', 21.5",
    "°C, '70.7 F', 21.5",
    "°C, '21.5 °C', 21.5",
    "kPa, '25 psi', 172.36893229",
    "Ω, '14.8 kΩ', 14800",
    "A, '4.0 mA', 0.004",
    "counts, '1893', 1893"
  })
  void whatIsUnderstoodWhollyIsRead(String unit, String answer, double value) throws Exception {
    assertThat(Reply.number(meter(unit), answer)).isCloseTo(value, within(1e-8 * Math.abs(value)));
  }

  /** Never the first number of a line. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "1,234.5",
        "3,45",
        "1 234.5",
        "4.0 4.1",
        "4.0,4.1",
        "5f",
        "5d",
        "0x5p0",
        "0x10",
        "1e",
        "1e+",
        "4.0 A",
        "4.0 mm",
        "4.0 furlongs",
        "4.0 V?",
        "~4.0",
        "<0.1",
        "> 5.0",
        "4..0",
        "4.0.1",
        "--4",
        "+-4",
        "4 V 5",
        "t=12 ch0 1893",
        "12:00:01",
        "2026-04-01",
        "CH1",
        "booting…",
        "READY",
        "",
        " ",
        "#?garbled",
        "4.0 UNSTABLE",
        "4.0 V ?",
        "4.0\u00004",
        "٤",
        "1_000",
        "Infinite",
        "1E400000",
        "ERR 5",
        "-113,\"Undefined header\"",
        "4'000.0",
        "4.0 V;4.1 V",
        "*4.0",
        "4.0*",
        "1OK"
      })
  void whatIsNotIsRefused(String answer) {
    assertThat(refused(meter("V"), answer)).as(answer).isEqualTo(Kind.ODD_ANSWER);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "9.9E37", "+9.9E37", "-9.90000000E+37", "9.91E37", "OL", "0L.OL", "O.L", "+OL V", "ovld",
            "OVLD",
        "> 5.0 OVER", "5.0 V OVER", "OVERFLOW", "----", "- - - -", "--.--", "NaN", "NAN", "Inf",
            "-INF",
        "INFINITY", "CH1 OVERLOAD", "1e99"
      })
  void tooMuchIsSaidToBeTooMuch(String answer) {
    assertThat(refused(meter("V"), answer)).as(answer).isEqualTo(Kind.OVERRANGE);
  }

  /** A unit that was read counts, whatever the plan thought. */
  @Test
  void aUnitOfAnotherKindIsRefusedAndSaid() {
    try {
      Reply.number(meter("kPa"), "4.0 V");
      throw new AssertionError("was read");
    } catch (InstrumentException e) {
      assertThat(e).hasMessage("Meter answered '4.0 V', expected a number in kPa");
    }
  }

  /** Each number comes back as it was written, however an instrument may write it. */
  @Test
  void numbersComeBackAsTheyWereWritten() throws Exception {
    for (int seed = 0; seed < 2000; seed++) {
      var r = new Random(seed);
      double v = r.nextGaussian() * Math.pow(10, r.nextInt(12) - 6);
      String form = new String[] {"%.6e", "%+.8E", "%.9f", "% .4E"}[r.nextInt(4)];
      String written = String.format(Locale.ROOT, form, v);
      String[] around = {"%s", " %s ", "CH2 %s", "%s V", "12:30:00,%s", "x: %s", "%sV DC"};
      String answer = around[r.nextInt(around.length)].formatted(written);
      assertThat(Reply.number(meter("V"), answer))
          .as("seed %d: %s", seed, answer)
          .isEqualTo(Double.parseDouble(written.strip()));
    }
  }

  /** Noise is read as a number only where all of it is one. */
  @Test
  void noiseIsNoReading() {
    String alphabet = "0123456789.,+-eEV mOLK:\u0001~#xf";
    for (int seed = 0; seed < 20_000; seed++) {
      var r = new Random(seed);
      var noise = new StringBuilder();
      for (int i = r.nextInt(10); i >= 0; i--)
        noise.append(alphabet.charAt(r.nextInt(alphabet.length())));
      String answer = noise.toString();
      try {
        double v = Reply.number(meter("V"), answer);
        assertThat(answer.strip())
            .as("seed %d: %s is %s", seed, answer, v)
            .matches(
                "([A-Za-z]+\\d*\\s*:\\s*|\\d{1,2}:\\d\\d(:\\d\\d)?[ ,]+)?[-+]? ?(\\d+\\.?\\d*|\\.\\d+)([eE][-+]?\\d{1,3})? *[mkK]?V?([ ,]+OK)*");
      } catch (InstrumentException e) {
        assertThat(e.kind()).isIn(Kind.ODD_ANSWER, Kind.OVERRANGE);
      }
    }
  }
}
