package nocking.sensor;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.IntStream;
import nocking.element.Measurand;
import nocking.path.SensorCurve;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvFileSource;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Sensors against the printed tables of their standards. */
class StandardTablesTest {
  private static final Unit CELSIUS = Unit.of("°C");

  private static SensorCurve curve(Sensor s, String unit) {
    return SensorCurve.of(new Measurand("T", Unit.of(unit)), s);
  }

  /** Tables of IEC 60584-1 with the cold junction at 0 °C, to the printed microvolt. */
  @ParameterizedTest
  @CsvFileSource(resources = "thermocouples.csv", numLinesToSkip = 1)
  void thermocoupleGivesThePrintedMicrovolts(String type, double celsius, String millivolts) {
    var sensor = new Thermocouple(ThermocoupleType.valueOf(type), v(0), v(0));
    double volts = curve(sensor, "°C").output(celsius);
    assertThat(Numbers.fixed(1000 * volts, 3)).as("%s at %s", type, celsius).isEqualTo(millivolts);
  }

  @ParameterizedTest
  @EnumSource(ThermocoupleType.class)
  void thermocoupleIsTurnedRoundOnItsReferenceFunction(ThermocoupleType type) {
    for (double cold : new double[] {0, 21.3, 40}) {
      SensorCurve c = curve(new Thermocouple(type, v(cold), v(0)), "°C");
      var branch = type.reference().branch();
      for (int i = 0; i <= 40; i++) {
        // At its very bottom type B has no slope at all.
        double from = type == ThermocoupleType.B ? 0.02 : 0;
        double x = branch.at(from + (1 - from) * i / 40.0);
        assertThat(c.quantity(c.output(x)))
            .as("%s at %s", type, x)
            .isCloseTo(x, within(1e-9 * branch.width()));
      }
    }
  }

  /** The reference functions of neighbouring pieces meet where one takes over from the other. */
  @ParameterizedTest
  @EnumSource(ThermocoupleType.class)
  void piecesMeet(ThermocoupleType type) {
    var pieces = type.reference().pieces();
    for (int i = 1; i < pieces.size(); i++) {
      double at = pieces.get(i).from();
      double before = type.reference().value(Math.nextDown(at));
      assertThat(type.reference().value(at)).isCloseTo(before, within(2e-5));
    }
  }

  /** IEC 60751:2022, table 1, 100 Ω at 0 °C, to the printed hundredth of an ohm. */
  @ParameterizedTest
  @CsvSource({
    "-200, 18.52", "-150, 39.72", "-100, 60.26", "-50, 80.31", "-20, 92.16", "-10, 96.09",
    "0, 100.00", "10, 103.90", "20, 107.79", "25, 109.73", "50, 119.40", "100, 138.51",
    "150, 157.33", "200, 175.86", "250, 194.10", "300, 212.05", "400, 247.09", "500, 280.98",
    "600, 313.71", "700, 345.28", "800, 375.70", "850, 390.48"
  })
  void platinumGivesThePrintedOhms(double celsius, String ohms) {
    SensorCurve c = curve(PlatinumRtd.of(100), "°C");
    assertThat(Numbers.fixed(c.output(celsius), 2)).isEqualTo(ohms);
    assertThat(c.quantity(c.output(celsius))).isCloseTo(celsius, within(1e-9 * 1050));
  }

  @Test
  void platinumInFahrenheitIsTheSameThermometer() {
    assertThat(curve(PlatinumRtd.of(100), "°F").output(212)).isCloseTo(138.5055, within(1e-9));
    assertThat(curve(PlatinumRtd.of(1000), "K").output(273.15)).isCloseTo(1000, within(1e-9));
  }

  /** IEC 60751:2022, table 3: 0.3 + 0.005·|t| for class B. */
  @Test
  void platinumClassesHaveTheirLimits() {
    assertThat(PlatinumRtd.of(100).classTolerance(100, CELSIUS)).isCloseTo(0.8, within(1e-12));
    assertThat(PlatinumRtd.of(100).classTolerance(212, Unit.of("°F")))
        .isCloseTo(1.44, within(1e-9));
    assertThat(PlatinumRtd.ToleranceClass.AA.limit(-50)).isCloseTo(0.185, within(1e-12));
  }

  @Test
  void twoWiresReadTheirLeads() {
    var two =
        new PlatinumRtd(v(100), PlatinumRtd.ToleranceClass.B, PlatinumRtd.Wires.TWO, v(0.5), null);
    assertThat(curve(two, "°C").output(0)).isCloseTo(101, within(1e-12));
    double asFour = curve(PlatinumRtd.of(100), "°C").quantity(101);
    assertThat(asFour).isCloseTo(2.56, within(0.005));
  }

  @Test
  void thermistorThroughThreePointsGivesThem() {
    var points =
        List.of(TablePoint.of(0, 32650), TablePoint.of(25, 10000), TablePoint.of(100, 680));
    SensorCurve c = curve(NtcSteinhart.through(points), "°C");
    for (TablePoint p : points) {
      double celsius = p.at().number();
      double ohms = p.output().number();
      assertThat(c.quantity(ohms)).isCloseTo(celsius, within(1e-9));
      assertThat(c.output(celsius)).isCloseTo(ohms, within(1e-9 * ohms));
    }
    assertThat(c.quantity(c.output(61.7))).isCloseTo(61.7, within(1e-9 * 100));
  }

  @Test
  void thermistorByBetaPassesItsTwoPoints() {
    double beta = NtcBeta.betaBetween(25, 10000, 85, 1070);
    assertThat(beta).isCloseTo(3977.5, within(0.05));
    SensorCurve c = curve(NtcBeta.of(10000, 25, beta), "°C");
    assertThat(c.output(85)).isCloseTo(1070, within(1e-8));
    assertThat(c.quantity(1070)).isCloseTo(85, within(1e-9));
  }

  /** A table made from known constants gives them back by least squares. */
  @Test
  void thermistorTableGivesItsConstants() {
    var made = NtcSteinhart.EXAMPLE;
    SensorCurve c = curve(made, "°C");
    var rows =
        IntStream.rangeClosed(0, 20).mapToObj(i -> TablePoint.of(5 * i, c.output(5 * i))).toList();
    var fitted = NtcSteinhart.through(rows);
    assertThat(fitted.b().number()).isCloseTo(made.b().number(), within(1e-12));
    assertThat(fitted.c().number()).isCloseTo(made.c().number(), within(1e-14));
  }

  @Test
  void outsideItsRangeASensorHasNoValue() {
    assertThatThrownBy(() -> curve(PlatinumRtd.of(100), "°C").output(900))
        .isInstanceOf(QuantityException.class)
        .hasMessage("900 °C lies outside what the sensor is known for, -200 … 850 °C");
    assertThatThrownBy(() -> curve(PlatinumRtd.of(100), "°C").quantity(10))
        .hasMessage("no input gives 10 Ω; the sensor is known for -200 … 850 °C");
    var k = new Thermocouple(ThermocoupleType.K, v(25), v(0));
    assertThatThrownBy(() -> curve(k, "°C").output(1500)).hasMessageContaining("-270 … 1372 °C");
    assertThatThrownBy(() -> curve(k, "kPa").output(20))
        .hasMessage("this sensor measures a temperature and the channel's unit is kPa");
  }
}
