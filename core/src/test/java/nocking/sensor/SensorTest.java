package nocking.sensor;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import java.util.stream.LongStream;
import nocking.element.Element;
import nocking.element.Measurand;
import nocking.path.SensorCurve;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Sensor models forward, inverse, and against their valid ranges. */
class SensorTest {

  private static final Unit UNIT = Unit.of("kPa");

  private static SensorCurve path(Sensor s) {
    return SensorCurve.of(new Measurand("x", UNIT), s);
  }

  @Test
  void datasheetFormsGiveTheirOwnPoints() {
    var linear = new LinearSensor(v(0.75), v(25), v(0.01), v(-40), v(125), v(0));
    assertThat(path(linear).output(25)).isEqualTo(0.75);
    assertThat(path(linear).output(-40)).isCloseTo(0.10, within(1e-12));
    var falling = new TwoPointSensor(v(0), v(4.5), v(100), v(0.5), v(0));
    assertThat(path(falling).output(0)).isEqualTo(4.5);
    assertThat(path(falling).output(100)).isEqualTo(0.5);
    var ratiometric = new RatiometricSensor(v(-100), v(10), v(300), v(90), v(5), v(0));
    assertThat(path(ratiometric).output(-100)).isCloseTo(0.5, within(1e-12));
    assertThat(path(ratiometric).output(300)).isCloseTo(4.5, within(1e-12));
  }

  @Test
  void ratiometricOutputFollowsItsSupply() {
    var at5 = new RatiometricSensor(v(0), v(8), v(100), v(92), v(5), v(0));
    var at49 = Element.with(at5, at5.field("Vsup"), v(4.95));
    double ratio = path(at49).output(37) / path(at5).output(37);
    assertThat(ratio).isCloseTo(0.99, within(1e-12));
    assertThat(at49.ratiometricSupply()).contains(4.95);
    assertThat(at5.possibleOutput()).contains(new Span(0, 5));
  }

  static LongStream seeds() {
    return LongStream.range(0, 60);
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void inverseAgreesToABillionthOfTheRange(long seed) {
    Random r = new Random(seed);
    double low = -100 + 200 * r.nextDouble();
    double high = low + 1 + 500 * r.nextDouble();
    List<Sensor> sensors =
        List.of(
            new LinearSensor(
                v(r.nextDouble()), v(low), v(0.001 + r.nextDouble()), v(low), v(high), v(0)),
            new TwoPointSensor(v(high), v(r.nextDouble()), v(low), v(2 + r.nextDouble()), v(0)),
            new RatiometricSensor(
                v(low), v(5 * r.nextDouble()), v(high), v(50 + 40 * r.nextDouble()), v(3.3), v(0)));
    for (Sensor s : sensors) {
      SensorCurve p = path(s);
      for (int i = 0; i <= 10; i++) {
        double x = s.rated(UNIT).at(i / 10.0);
        assertThat(p.quantity(p.output(x)))
            .as("seed %d, %s", seed, s.title())
            .isCloseTo(x, within(1e-9 * (high - low)));
      }
    }
  }

  @Test
  void everyModelHasAKeyAndASentence() {
    assertThat(Sensor.models())
        .extracting(Sensor::model)
        .doesNotHaveDuplicates()
        .contains("linear");
    for (Sensor s : Sensor.models()) {
      s.require(Unit.of("kPa"));
      assertThat(s.inHand()).isNotBlank();
      assertThat(s.summary()).isNotBlank().hasSizeLessThan(40);
      assertThat(s.fields()).allSatisfy(f -> assertThat(f.label()).isNotBlank());
    }
  }

  @Test
  void valuesOutsideTheirRangeAreNamed() {
    var s = new RatiometricSensor(v(0), v(8), v(100), v(120), v(5), v(0));
    assertThatThrownBy(() -> s.require(Unit.of("kPa")))
        .isInstanceOf(QuantityException.class)
        .hasMessage("Ratiometric: Output there, of supply (rb) must be at most 100 %; read 120");
    var negative = new LinearSensor(v(0), v(0), v(1), v(0), v(1), v(-5));
    assertThatThrownBy(() -> negative.require(Unit.of("kPa")))
        .hasMessage("Linear sensor: Source resistance (Rs) must be at least 0 Ω; read -5");
    var missing = new TwoPointSensor(v(0), null, v(1), v(1), v(0));
    assertThatThrownBy(() -> missing.require(Unit.of("kPa")))
        .hasMessage("Two points: Output there (Va) is missing");
  }
}
