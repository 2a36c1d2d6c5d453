package nocking.datasheet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Locale;
import java.util.Random;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.datasheet.SheetLine.Reading;
import nocking.element.Measurand;
import nocking.path.SensorCurve;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.sensor.CurrentLoop;
import nocking.sensor.LinearSensor;
import nocking.sensor.NtcBeta;
import nocking.sensor.PlatinumRtd;
import nocking.sensor.RatiometricSensor;
import nocking.sensor.StrainBridge;
import nocking.sensor.TableSensor;
import nocking.sensor.TwoPointSensor;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What a pasted datasheet says, line by line, and what it does not. */
class DatasheetTest {

  private static SheetSensor one(String text) {
    Datasheet d = Datasheet.read(text);
    assertThat(d.problem()).isEmpty();
    assertThat(d.sensors()).hasSize(1);
    return d.sensors().getFirst();
  }

  private static double output(SheetSensor s, double x) {
    return SensorCurve.of(new Measurand("x", s.unit()), s.sensor()).at(x);
  }

  @Test
  void typesInColumnsAreSensorsOfTheirOwn() {
    Datasheet d =
        Datasheet.read(
            """
            Pressure transmitter
            Supply voltage 5.0 V ± 0.25 V
            Output signal 0.5–4.5 V ratiometric
            Accuracy ±0.5 % FS
            Type          P1       P2        P3
            Measuring range (bar)   0…4   0…10   -1 to 25
            Proof pressure (bar)    8     20     50
            Burst pressure (bar)    20    35     100
            Response time < 2 ms
            Output resistance 100 Ω
            Operating temperature -40…125 °C
            """);
    assertThat(d.sensors()).extracting(SheetSensor::type).containsExactly("P1", "P2", "P3");
    for (SheetSensor s : d.sensors()) {
      RatiometricSensor r = (RatiometricSensor) s.sensor();
      assertThat(r.lowFraction().number()).isEqualTo(10);
      assertThat(r.highFraction().number()).isEqualTo(90);
      assertThat(r.supply().number()).isEqualTo(5);
      // Half a percent of the span of 4 V is 20 mV, 0.4 % of the supply.
      assertThat(r.lowFraction().spread().limit()).isCloseTo(0.4, within(1e-12));
      assertThat(r.sourceResistance().number()).isEqualTo(100);
      assertThat(s.unit()).isEqualTo(Unit.of("bar"));
    }
    RatiometricSensor third = (RatiometricSensor) d.sensors().get(2).sensor();
    assertThat(third.lowAt().number()).isEqualTo(-1);
    assertThat(third.highAt().number()).isEqualTo(25);
    assertThat(d.sensors().get(1).overload().orElseThrow().proof().number()).isEqualTo(20);
    assertThat(d.sensors().get(1).overload().orElseThrow().burst().number()).isEqualTo(35);
    assertThat(reading(d, 9)).isEqualTo(Reading.NOT_UNDERSTOOD);
    assertThat(reading(d, 11)).isEqualTo(Reading.NOT_NEEDED);
    assertThat(reading(d, 1)).isEqualTo(Reading.NOT_NEEDED);
  }

  private static Reading reading(Datasheet d, int line) {
    return d.lines().stream()
        .filter(l -> l.number() == line)
        .map(SheetLine::reading)
        .findFirst()
        .orElseThrow();
  }

  @Test
  void aTableWithDecimalCommasHasItsColumnsAsTypesAndItsBetaBesideThem() {
    Datasheet d =
        Datasheet.read(
            """
            R25: 10 kΩ ± 1 %
            B25/85: 3950 K ± 1 %
            Dissipation constant 1,5 mW/K
            T (°C)    Type A (kΩ)   Type B (kΩ)
            0         32,650        27,280
            10        19,900        17,220
            25        10,000        9,100
            """);
    assertThat(d.separator()).isEqualTo(Separator.COMMA);
    assertThat(d.sensors())
        .extracting(SheetSensor::type)
        .containsExactly("Type A", "Type B", "by its beta value");
    TableSensor b = (TableSensor) d.sensors().get(1).sensor();
    assertThat(b.points())
        .extracting(p -> p.output().number())
        .containsExactly(27280.0, 17220.0, 9100.0);
    NtcBeta ntc = (NtcBeta) d.sensors().get(2).sensor();
    assertThat(ntc.resistance().number()).isEqualTo(10e3);
    assertThat(ntc.resistance().spread().limit()).isEqualTo(1);
    assertThat(ntc.resistance().spread().relative()).isTrue();
    assertThat(ntc.beta().number()).isEqualTo(3950);
    assertThat(ntc.dissipation().number()).isEqualTo(1.5);
  }

  @Test
  void unitsMayStandInALineOfTheirOwnAndLimitsBesideTheNominal() {
    SheetSensor s =
        one(
            "Temp\\tRmin\\tRnom\\tRmax\\n°C\\tΩ\\tΩ\\tΩ\\n-10\\t52000\\t55300\\t58700\\n"
                    .replace("\\t", "\t")
                    .replace("\\n", "\n")
                + "0\t31000\t32650\t34300\n10\t19000\t19900\t20800\n");
    assertThat(s.type()).isEqualTo("Rnom");
    assertThat(s.says()).contains("the limits beside it are not used");
    assertThat(output(s, 0)).isEqualTo(32650);
  }

  @Test
  void otherSensorsFollowFromTheirOwnLines() {
    SheetSensor line =
        one("Output at 0 °C: 350 mV\nSensitivity: 20 mV/°C ± 0.5 mV/°C\nRange: -40…100 °C\n");
    assertThat(output(line, 9)).isCloseTo(0.53, within(1e-12));
    assertThat(((LinearSensor) line.sensor()).slope().spread().limit()).isEqualTo(0.0005);

    SheetSensor load =
        one(
            "Rated load | 60 kg\nRated output | 2.0 ± 0.1 mV/V\nExcitation | 5 V\nOverload | 90 kg\n");
    assertThat(load.sensor()).isInstanceOf(StrainBridge.class);
    assertThat(output(load, 60)).isCloseTo(10e-3, within(1e-12));
    assertThat(load.overload().orElseThrow().proof().number()).isEqualTo(90);

    SheetSensor loop = one("Measuring range 0 to 2.5 m\nOutput 4-20 mA\n");
    assertThat(loop.sensor()).isInstanceOf(CurrentLoop.class);
    assertThat(output(loop, 1.25)).isCloseTo(12e-3, within(1e-12));

    SheetSensor both = one("Range ± 10 kPa\nOutput 0.25 … 4.25 V DC\n");
    assertThat(output(both, -10)).isCloseTo(0.25, within(1e-12));
    assertThat(output(both, 0)).isCloseTo(2.25, within(1e-12));

    SheetSensor share = one("Range: 0…100 psi\nOutput: 10…90 %Vs\nSupply: 3.3 V\n");
    assertThat(output(share, 50)).isCloseTo(1.65, within(1e-12));

    for (String text :
        List.of(
            "Ratiometric output\nOutput 0.5…4.5 V\nRange 0…10 bar\nSupply 5 V\n",
            "Output 0.5…4.5 V\nRange 0…10 bar\nSupply 5 V\nThe output is ratiometric\n")) {
      assertThat(one(text).sensor()).as(text).isInstanceOf(RatiometricSensor.class);
    }

    assertThat(((PlatinumRtd) one("Element Pt1000 class B\n").sensor()).resistance().number())
        .isEqualTo(1000);
  }

  /** What contradicts itself, or is not said, makes no sensor, and the sentence says why. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '#',
      value = {
        "Output 0.5–4.5 V;Range 0…10 bar;Output 0…5 V # line 3 contradicts another: output is 0 … 5 V, line 1 says 0.5 … 4.5 V",
        "Output 0.5–4.5 V # no line says the range of the quantity",
        "Range 0…10 bar # no line says what comes out: an output or a sensitivity",
        "Range 0…10 bar;Output 0.5…4.5 V ratiometric # no line says the supply that the output is a share of",
        "Range 0…10 bar;Output 0.5…4.5 V ratiometric;Supply 4.5…5.5 V # the supply is a range, 4.5 … 5.5 V: leave the one that is used",
        "Sensitivity 20 mV/°C;Range 0…100 °C # no line says the output at a known quantity",
        "Sensitivity 20 mV/°C;Zero 0.35 V;Range 0…100 °C # no line says at which quantity the zero holds",
        "Nominal resistance at 25 °C: 10 kΩ # no line says the beta value",
        "Beta: 3950 K;Resistance: 10 kΩ # no line says the resistance at a temperature",
        "Output 4.5 V;Range 0…10 bar # the output has one end only: 4.5 V",
        "Range 0…10;Output 0…5 V # the range has no unit",
        "Hello 42 # no line says anything of a sensor that is understood",
      })
  void whatIsMissingIsSaid(String text, String problem) {
    Datasheet d = Datasheet.read(text.replace(";", "\n"));
    assertThat(d.sensors()).isEmpty();
    assertThat(d.problem()).isEqualTo(problem);
  }

  @ParameterizedTest
  @ValueSource(strings = {"Range: 0…1,000 kPa", "Range 1,500…2,000 mm"})
  void aCommaThatMayBeEitherIsAskedFor(String text) {
    assertThatThrownBy(() -> Datasheet.read(text))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("may have a decimal comma or a comma between thousands");
    assertThat(Datasheet.read(text, Separator.COMMA).lines()).hasSize(1);
    assertThatThrownBy(() -> Datasheet.read("a 1,5 b 2.5")).hasMessageContaining("say which it is");
    assertThat(Separator.of("1.234.567,5")).isEqualTo(Separator.COMMA);
    assertThat(Separator.of("1,234,567.5")).isEqualTo(Separator.POINT);
    assertThat(Separator.of("1.000.000 Pa")).isEqualTo(Separator.COMMA);
    assertThat(Separator.of("no numbers")).isEqualTo(Separator.POINT);
  }

  /** A number is read to its end or not at all. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '#',
      value = {
        "Range: 0…1.000.000 Pa # 1000000",
        "Range (Pa): 0…1\u00A0000\u00A0000 # 1000000",
        "Range: 0…100\u202F000 Pa # 100000",
        "Range:\u00A00…250\u00A0Pa # 250",
        "Range: 0…10 kPa 2-port # 10",
      })
  void thousandsAreWholeNumbers(String range, double high) {
    assertThat(one(range + "\nOutput: 0…5 V 3-wire\n").sensor().rated(Unit.of("Pa")).high())
        .isEqualTo(high);
  }

  @ParameterizedTest
  @ValueSource(strings = {"Range (Pa): 0…100 000", "Range (kPa): 0…1'000", "Range (kPa) 0…1.2.3"})
  void aNumberThatGoesOnIsNotUnderstood(String range) {
    Datasheet d = Datasheet.read(range + "\nOutput: 0…5 V\n", Separator.POINT);
    assertThat(d.lines().getFirst().reading()).isEqualTo(Reading.NOT_UNDERSTOOD);
    assertThat(d.lines().getFirst().says()).contains("goes on behind its number");
    assertThat(d.sensors()).isEmpty();
  }

  @Test
  void emptyAndEndlessTextsAreRefused() {
    assertThatThrownBy(() -> Datasheet.read(" \n ")).hasMessage("there is no text to read");
    assertThatThrownBy(() -> Datasheet.read("x".repeat(300_000)))
        .hasMessageContaining("at most 200000 characters; read 300000");
    for (String s : List.of("1", "1,000", "Range 1", "a(", "± ", "1 to ")) {
      Datasheet d = Datasheet.read("Range " + s.repeat(20_000) + " bar", Separator.POINT);
      assertThat(d.lines().getFirst().reading()).isEqualTo(Reading.NOT_UNDERSTOOD);
      assertThat(d.lines().getFirst().says()).contains("at most 1000 are read");
    }
  }

  /** Whatever numbers a datasheet prints, in whatever way, come out as they were put in. */
  @Test
  void seededSheetsGiveTheirNumbersBack() {
    var random = new Random(20261127);
    String[] units = {"bar", "kPa", "psi", "mm", "kg", "N"};
    String[] between = {"…", "...", " to ", "–", " - "};
    for (int n = 0; n < 300; n++) {
      String unit = units[random.nextInt(units.length)];
      double low = random.nextInt(4) == 0 ? -Math.rint(50 * random.nextDouble()) : 0;
      double high = low + 1 + Math.rint(4000 * random.nextDouble()) / 10;
      double v1 = Math.rint(1000 * random.nextDouble()) / 1000;
      double v2 = v1 + 0.5 + Math.rint(3000 * random.nextDouble()) / 1000;
      boolean comma = random.nextBoolean();
      boolean milli = random.nextBoolean();
      String sep = between[random.nextInt(between.length)];
      String range = number(low, comma) + sep + number(high, comma);
      String out =
          milli
              ? number(1000 * v1, comma) + sep + number(1000 * v2, comma) + " mV"
              : number(v1, comma) + sep + number(v2, comma) + " V";
      String text =
          random.nextBoolean()
              ? "Range [%s]: %s\nOutput: %s\n".formatted(unit, range, out)
              : "Output signal   %s\nMeasuring range   %s %s\n".formatted(out, range, unit);
      SheetSensor s =
          Datasheet.read(text, comma ? Separator.COMMA : Separator.POINT).sensors().stream()
              .findFirst()
              .orElseThrow(() -> new AssertionError(text));
      TwoPointSensor p = (TwoPointSensor) s.sensor();
      assertThat(p.lowAt().number()).as(text).isCloseTo(low, within(1e-9));
      assertThat(p.highAt().number()).as(text).isCloseTo(high, within(1e-9));
      assertThat(p.lowOutput().number()).as(text).isCloseTo(v1, within(1e-9));
      assertThat(p.highOutput().number()).as(text).isCloseTo(v2, within(1e-9));
      assertThat(s.unit()).isEqualTo(Unit.of(unit));
    }
  }

  private static String number(double v, boolean comma) {
    String s = String.format(Locale.ROOT, "%.3f", v);
    return comma ? s.replace('.', ',') : s;
  }

  /** No text whatever ends in anything but a reading or a sentence. */
  @Test
  void oddTextsAreReadOrRefused() {
    var random = new Random(7);
    String[] bits = {
      "Range", "Output", "0…10", "bar", "4-20", "mA", "±", "1,5", "%", "FS", "Supply", ":", "|",
      "\n", "\t", "kΩ", "R25", "B25/85", "(", ")", "-", "to", "…", "°C", "T", "12 34", "NaN",
      "1e999", "Type", "A", "Pt100", "at", "0", ""
    };
    for (int n = 0; n < 3000; n++) {
      var text = new StringBuilder();
      for (int i = random.nextInt(30); i >= 0; i--) {
        text.append(bits[random.nextInt(bits.length)]).append(random.nextBoolean() ? " " : "  ");
      }
      try {
        Datasheet d = Datasheet.read(text.toString(), Separator.POINT);
        assertThat(d.sensors().isEmpty()).as(text.toString()).isEqualTo(!d.problem().isEmpty());
      } catch (QuantityException e) {
        assertThat(e.getMessage()).isNotBlank();
      }
    }
  }

  /** A channel that is still empty takes the sensor's quantity; one that measures else refuses. */
  @Test
  void aCardBeginsAChannelOfItsOwnQuantity() {
    SheetSensor s = one("Range: 0…4 bar\nOutput: 0.5…4.5 V\nProof 8 bar\n");
    SensorCard card = s.card("k", "Probe", "2026-03-01");
    Channel c = card.begin(Channel.blank("c", "P"));
    assertThat(c.unit()).isEqualTo(Unit.of("bar"));
    assertThat(c.definition().high().number()).isEqualTo(4);
    assertThat(c.design().overload().proof().number()).isEqualTo(8);
    Channel kpa = card.putInto(nocking.Channels.blower());
    assertThat(kpa.design().overload().proof().number()).isCloseTo(800, within(1e-9));
    assertThatThrownBy(() -> card.begin(nocking.Channels.incubator()))
        .hasMessage("Probe measures bar and the channel °C");
    assertThat(List.of(s.sensorIn(Unit.of("kPa")).rated(Unit.of("kPa")).high()))
        .containsExactly(400.0);
  }
}
