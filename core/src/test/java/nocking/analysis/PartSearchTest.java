package nocking.analysis;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.Channels;
import nocking.channel.Channel;
import nocking.converter.Converter;
import nocking.element.Signal;
import nocking.parts.Assortment;
import nocking.parts.PartLimit;
import nocking.parts.PreferredSeries;
import nocking.path.SignalPath;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.sensor.BipolarSensor;
import nocking.sensor.NtcBeta;
import nocking.sensor.Sensor;
import nocking.stage.DifferenceAmp;
import nocking.stage.Divider;
import nocking.stage.Follower;
import nocking.stage.InputPull;
import nocking.stage.InvertingAmp;
import nocking.stage.NonInvertingAmp;
import nocking.stage.PullUp;
import nocking.stage.ReferenceBlend;
import nocking.stage.SeriesResistor;
import nocking.stage.Stage;
import org.junit.jupiter.api.Test;

/** What is offered does what was asked for, once it is in the channel. */
class PartSearchTest {
  private static final Assortment E24 = Assortment.of(PreferredSeries.E24);
  private static final Span ANY = new Span(1e3, 100e3);

  private static PartSearch.Goal goal(double start, double end, int most) {
    return new PartSearch.Goal(start, end, ANY, most, Double.POSITIVE_INFINITY);
  }

  private static SignalPath path(Channel c) {
    return Analysis.of(c).design().path().orElseThrow();
  }

  private static double in(Channel c, double x) {
    return path(c).at(x).nodes().getFirst().value();
  }

  private static Channel with(Stage... stages) {
    return Channels.incubator().design(d -> d.withStages(List.of(stages)));
  }

  /** The best of all pairs in the window for the total, found by trying every one. */
  @Test
  void aDividerIsTheBestOfAllPairs() {
    Channel c = Channels.blower();
    double wanted = 1.9 / in(c, 60);
    double best = Double.POSITIVE_INFINITY;
    for (int i = 0; i < E24.size(); i++) {
      for (int j = 0; j < E24.size(); j++) {
        double total = E24.ohms(i) + E24.ohms(j);
        if (total < ANY.low() || total > ANY.high()) continue;
        best = Math.min(best, Math.abs(E24.ohms(j) / total / wanted - 1));
      }
    }
    PartSearch.Found found = PartSearch.of(c, 0, E24, goal(0, 1.9, 2));
    assertThat(found.says()).isEqualTo("ratio");
    Channel first = found.offers().getFirst().apply().apply(c);
    double ratio = path(first).at(60).output() / in(first, 60);
    assertThat(Math.abs(ratio / wanted - 1)).isCloseTo(best, within(1e-9));
    for (PartSearch.Offer o : found.offers()) {
      Channel then = o.apply().apply(c);
      assertThat(path(then).at(60).output() / in(then, 60))
          .as(o.solution().text())
          .isCloseTo(o.solution().value(), within(1e-9));
      assertThat(((Divider) then.design().stages().getFirst()).upper().spread()).isNotNull();
    }
  }

  /** Gain by the resistors, and mid-scale at the pivot by the offset. */
  @Test
  void aDifferenceAmplifierTurnsAboutThePivot() {
    Channel c = Channels.incubator();
    double gain = 2.4 / (in(c, 14) - in(c, 4));
    PartSearch.Found found = PartSearch.of(c, 0, E24, goal(0.4, 2.8, 2));
    Channel then = found.offers().getFirst().apply().apply(c);
    SignalPath p = path(then);
    assertThat(p.at(9).output()).isCloseTo(1.65, within(1e-5));
    assertThat((p.at(14).output() - p.at(4).output()) / (in(c, 14) - in(c, 4)))
        .isCloseTo(gain, within(0.01 * gain));
    Channel free = c.define(d -> d.withPivot(null));
    Channel started =
        PartSearch.of(free, 0, E24, goal(0.4, 2.8, 2)).offers().getFirst().apply().apply(free);
    assertThat(path(started).at(4).output()).isCloseTo(0.4, within(1e-4));
    assertThatThrownBy(() -> PartSearch.of(c, 0, E24, goal(2.8, 0.4, 2)))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("does not invert");
  }

  /** Whatever circuit is offered, its output ends where it was wanted, and nothing clips. */
  @Test
  void gainAndShiftEndWhereTheyWereWanted() {
    Channel c = with(new NonInvertingAmp(v(10e3), v(10e3), v(0), v(0), v(3.3)));
    for (double[] w : new double[][] {{0.3, 3.0}, {3.0, 0.3}, {1.0, 2.0}}) {
      PartSearch.Found found =
          PartSearch.of(c, 0, Assortment.of(PreferredSeries.E96), goal(w[0], w[1], 3));
      assertThat(found.offers()).isNotEmpty();
      for (PartSearch.Offer o : found.offers()) {
        SignalPath p = path(o.apply().apply(c));
        double span = Math.abs(w[1] - w[0]);
        assertThat(p.at(4).output()).as(o.solution().text()).isCloseTo(w[0], within(0.05 * span));
        assertThat(p.at(14).output()).as(o.solution().text()).isCloseTo(w[1], within(0.05 * span));
        assertThat(p.at(4).clipped() || p.at(14).clipped()).isFalse();
      }
    }
  }

  @Test
  void oneResistorIsCombinedFromSeveral() {
    Channel c = with(new SeriesResistor(v(12345)));
    PartSearch.Found found = PartSearch.of(c, 0, E24, goal(0, 0, 3));
    double single = 0;
    for (int i = 0; i < E24.size(); i++) {
      if (Math.abs(E24.ohms(i) - 12345) < Math.abs(single - 12345)) single = E24.ohms(i);
    }
    Stage then = found.offers().getFirst().apply().apply(c).design().stages().getFirst();
    double combined = ((SeriesResistor) then).resistance().number();
    assertThat(Math.abs(combined - 12345)).isLessThan(Math.abs(single - 12345)).isLessThan(20);
  }

  /** Each rule's pull-up goes in with its number; the straightest is no worse than its rivals. */
  @Test
  void aPullUpIsChosenByHowStraightTheReadingBecomes() {
    Sensor ntc =
        Sensor.models().stream().filter(NtcBeta.class::isInstance).findFirst().orElseThrow();
    Channel c =
        Channels.incubator()
            .define(d -> d.withRange(v(0), v(40)).withPivot(null))
            .design(d -> d.withSensor(ntc).withStages(List.of(new PullUp(v(3.3), v(47e3)))));
    assertThat(ntc.signal()).isEqualTo(Signal.RESISTANCE);
    PartSearch.Found found = PartSearch.of(c, 0, E24, goal(0, 0, 1));
    assertThat(found.offers()).hasSizeGreaterThan(1);
    for (PartSearch.Offer o : found.offers()) {
      Channel then = o.apply().apply(c);
      PullUp p = (PullUp) then.design().stages().getFirst();
      assertThat(p.supply().number()).isEqualTo(3.3);
      assertThat(p.resistance().number()).isNotEqualTo(47e3);
      assertThat(o.solution().note()).contains("straight within ±").endsWith("°C");
    }
  }

  @Test
  void whatHasNoPartsSaysSo() {
    Channel c = with(new Follower(v(0), v(3.3)));
    assertThatThrownBy(() -> PartSearch.of(c, 0, E24, goal(0, 1, 2)))
        .isInstanceOf(QuantityException.class)
        .hasMessage("for a follower there is nothing to choose");
    Channel without = Channels.blower().design(d -> d.withSensor(null));
    assertThatThrownBy(() -> PartSearch.of(without, 0, E24, goal(0, 1, 2)))
        .hasMessage("the sensor is not defined yet");
  }

  /**
   * Behind a sensor with a source resistance and before a receiver that draws, both ends come out.
   */
  @Test
  void aBlendGivesBothEndsInItsOwnPath() {
    Channel c =
        Channels.incubator()
            .define(d -> d.withRange(v(-50), v(50)))
            .design(
                d ->
                    d.withSensor(new BipolarSensor(v(2.5), v(0.02), v(60), v(470)))
                        .withStages(
                            List.of(
                                new ReferenceBlend(v(5), v(1e3), v(0.5), v(10e3), v(0.5)),
                                new SeriesResistor(v(1e3)),
                                InputPull.toGround(v(100e3))))
                        .withConverter(Converter.of(v(12), v(5), v(220e3))));
    PartSearch.Found found = PartSearch.of(c, 0, E24, goal(2.2, 3.0, 2));
    assertThat(found.offers()).hasSizeGreaterThan(20);
    for (PartSearch.Offer o : found.offers()) {
      Channel then = o.apply().apply(c);
      assertThat(path(then).at(-50).nodes().get(1).value()).isCloseTo(2.2, within(1e-8));
      assertThat(path(then).at(50).nodes().get(1).value()).isCloseTo(3.0, within(1e-8));
      assertThat(o.solution().note()).contains("free").contains("with everything connected");
    }
    assertThatThrownBy(() -> PartSearch.of(c, 0, E24, goal(1, 4, 2)))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("less than 100 % of a swing");
  }

  /** A limit is kept by every offer in every corner of the parts, or nothing is offered. */
  @Test
  void nothingOfferedPassesTheLimit() {
    Channel c = Channels.blower();
    double most = in(c, 60);
    for (double never : new double[] {1.7, 1.8, 1.9}) {
      var goal = new PartSearch.Goal(0, 1.8, ANY, 2, PartLimit.NONE, never);
      for (PartSearch.Offer o : PartSearch.of(c, 0, E24, goal).offers()) {
        var d = (Divider) o.apply().apply(c).design().stages().getFirst();
        double t = d.upper().spread().limit() / 100;
        double lower = d.lower().number() * (1 + t);
        assertThat(most * lower / (d.upper().number() * (1 - t) + lower))
            .isLessThanOrEqualTo(never + 1e-9);
      }
    }
  }

  /** An amplifier about a low virtual ground moves its top by more than its swing's share. */
  @Test
  void amplifiersKeepTheLimitToo() {
    Channel c = with(new DifferenceAmp(v(10e3), v(10e3), v(0.3), v(0.1), v(0), v(3.3)));
    Assortment loose = Assortment.of(PreferredSeries.E24, 1e3, 1e6, 5);
    int offered = 0;
    for (double never : new double[] {2.6, 2.9, 3.3}) {
      var goal = new PartSearch.Goal(1.5, 2.5, ANY, 2, PartLimit.NONE, never);
      for (PartSearch.Offer o : PartSearch.of(c, 0, loose, goal).offers()) {
        var d = (DifferenceAmp) o.apply().apply(c).design().stages().getFirst();
        double gain = d.feedback().number() / d.input().number() * 1.05 / 0.95;
        double most = gain * (in(c, 14) - d.offset().number()) + d.virtualGround().number();
        assertThat(most).isLessThanOrEqualTo(never + 1e-9);
        offered++;
      }
    }
    assertThat(offered).isPositive();
  }

  /** What is wished for to begin with is the converter's range, in the stage's own direction. */
  @Test
  void theFirstWishFillsTheConverter() {
    Channel c = Channels.incubator();
    double top = c.design().converter().reference().number();
    assertThat(PartSearch.fillingTheConverter(c, path(c), 0))
        .containsExactly(0.05 * top, 0.95 * top);
    Channel falling = with(new InvertingAmp(v(10e3), v(10e3), v(1), v(0), v(3.3)));
    double[] wish = PartSearch.fillingTheConverter(falling, path(falling), 0);
    assertThat(wish[0]).isGreaterThan(wish[1]);
  }
}
