package nocking.analysis;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.Channels;
import nocking.analysis.RangeChoice.Verdict;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.channel.SensorCard;
import nocking.element.Signal;
import nocking.quantity.Span;
import nocking.sensor.RatiometricSensor;
import nocking.sensor.Sensor;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.sensor.TwoPointSensor;
import nocking.wiring.Supplied;
import org.junit.jupiter.api.Test;

/** What another sensor, or one of another range, would do on a channel. */
class OtherSensorsTest {
  private static Sensor ratiometric(double full) {
    return new RatiometricSensor(v(0), v(8), v(full), v(92), v(5), v(0));
  }

  private static SensorCard card(String name, QuantityKind kind, String unit, Sensor s) {
    return new SensorCard(name, name, "", "", kind, unit, s, 1).withSupplied(Supplied.USUAL);
  }

  /** 0.25 % of span against ±0.5 kPa: 250 kPa is too coarse, 50 kPa too small. */
  @Test
  void theLeastSpanThatHoldsTheRangeFits() {
    List<SensorCard> cards =
        List.of(
            card("wide", QuantityKind.PRESSURE, "kPa", ratiometric(160)),
            card("in bar", QuantityKind.PRESSURE, "bar", ratiometric(1)),
            card("warm", QuantityKind.TEMPERATURE, "°C", ratiometric(100)));
    List<RangeChoice> list =
        RangeChoice.of(Channels.blower(), cards, List.of(new Span(0, 250), new Span(0, 50)), 0.25);
    assertThat(list)
        .extracting(RangeChoice::name, RangeChoice::verdict)
        .containsExactly(
            tuple("0…50", Verdict.SATURATES),
            tuple("in bar", Verdict.SMALLEST),
            tuple("wide", Verdict.LARGER),
            tuple("0…250", Verdict.COARSE));
    RangeChoice bar = list.get(1);
    assertThat(bar.used()).isCloseTo(0.6, within(1e-12));
    assertThat(bar.headRoom()).isCloseTo(0.4, within(1e-12));
    assertThat(bar.error()).isCloseTo(0.25, within(1e-12));
    assertThat(bar.card()).isPresent();
    // One step of 3.3 V/4096 over 5 V · 0.84/100 kPa · 10/15.1.
    double slope = 5 * 0.84 / 100 * 10 / 15.1;
    assertThat(bar.count()).isCloseTo(3.3 / 4096 / slope, within(1e-5));
    assertThat(list.get(3).count()).isCloseTo(2.5 * bar.count(), within(1e-4));
    assertThat(list.getFirst().used()).isNaN();
    assertThat(list.getFirst().says()).isEqualTo("saturates");
  }

  /** A sensor of 160 kPa in the place of one of 100 reads 100/160 of what is there. */
  @Test
  void anotherSensorReadsWrongByTheRatioOfTheSpans() {
    SensorSwap swap = SensorSwap.of(Channels.blower(), ratiometric(160));
    assertThat(swap.problem()).isEmpty();
    assertThat(swap.rows()).extracting(SensorSwap.Row::where).contains("at rest", "full scale");
    for (SensorSwap.Row r : swap.rows()) {
      assertThat(r.reading()).as(r.where()).isCloseTo(r.applied() * 100 / 160, within(1e-9));
      assertThat(r.clipped()).isFalse();
      assertThat(r.nodes()).contains("TP1").contains("code ");
    }
    assertThat(swap.says("kPa"))
        .matches("at rest the new one reads the same; at full scale 2[23] kPa low");
  }

  /** Alike at rest, in the middle and at full scale, and not between nor beside. */
  @Test
  void whatIsAlikeAtThreePlacesIsNotTheSame() {
    Channel c =
        Channels.blower()
            .define(d -> d.withRange(v(0), v(60)))
            .design(d -> d.withSensor(new TwoPointSensor(v(0), v(0.5), v(100), v(4.5), v(0))));
    var bowed =
        new TableSensor(
            List.of(
                TablePoint.of(-100, 0.4),
                TablePoint.of(0, 0.5),
                TablePoint.of(15, 1.2),
                TablePoint.of(30, 1.7),
                TablePoint.of(45, 2.2),
                TablePoint.of(60, 2.9),
                TablePoint.of(200, 3.0)),
            TableSensor.Interpolation.LINEAR,
            Signal.VOLTAGE,
            v(0));
    SensorSwap swap = SensorSwap.of(c, bowed);
    assertThat(swap.says("kPa"))
        .matches(
            "at rest the new one reads the same; at full scale the same; worst inside, at 1[45]\\.?\\d* kPa,"
                + " 2\\.[45]\\d* kPa more than the present one; below the range, at -1\\d.\\d kPa, .* kPa more"
                + " than the present one; above the range, at 75.0 kPa, .* kPa less than the present one");
    assertThat(swap.fullScale().applied()).isEqualTo(60);
    // The same sensor is the same everywhere.
    assertThat(SensorSwap.of(c, c.design().sensor()).says("kPa"))
        .isEqualTo("at rest the new one reads the same; at full scale the same");
  }

  /** 0 … 60 of 100 kPa at 42 mV/kPa, one count of 12 bits, and the same as absolute pressure. */
  @Test
  void whatFollowsFromTheSensorIsSaidWithItsDigits() {
    Channel c = Channels.blower().define(d -> d.withGauge(true));
    SensorFacts facts = SensorFacts.of(Analysis.of(c));
    assertThat(facts.used()).isCloseTo(0.6, within(1e-12));
    assertThat(facts.facts())
        .extracting(SensorFacts.Fact::what, SensorFacts.Fact::value)
        .containsExactly(
            tuple("Sensitivity in the middle", "42.00 mV per kPa"),
            tuple("Output over the job", "400.0 mV … 2.920 V"),
            tuple("Rated range", "0.0 kPa … 100.0 kPa, 60 % used"),
            tuple("One count of the converter", "0.029 kPa"),
            tuple("Error of 0.5 % of the rated range", "±0.50 kPa"),
            tuple("The same as the other kind", "101.3 … 161.3 kPa absolute"));
    Channel wide = c.define(d -> d.withRange(v(0), v(400)));
    assertThat(SensorFacts.of(Analysis.of(wide)).used()).isEqualTo(1);
    Channel none = c.design(d -> d.withSensor(null));
    assertThat(SensorFacts.of(Analysis.of(none)).facts()).isEmpty();
  }

  @Test
  void withoutAPathThereIsNothingToCompare() {
    Channel without = Channels.blower().design(d -> d.withSensor(null));
    assertThat(SensorSwap.of(without, ratiometric(160)).says("kPa"))
        .isEqualTo("there is no calibration yet to compare with");
    SensorSwap ohms =
        SensorSwap.of(
            Channels.blower(),
            Sensor.models().stream()
                .filter(s -> s.signal() == Signal.RESISTANCE)
                .findFirst()
                .orElseThrow());
    assertThat(ohms.rows()).isEmpty();
    assertThat(ohms.problem()).isNotBlank();
  }
}
