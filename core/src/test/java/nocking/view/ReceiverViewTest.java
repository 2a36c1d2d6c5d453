package nocking.view;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.channel.SensorCard;
import nocking.channel.StoredCurve;
import nocking.fault.Fault;
import nocking.finding.Finding;
import nocking.points.RawUnit;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.sensor.NtcBeta;
import nocking.sensor.TablePoint;
import nocking.stage.Divider;
import nocking.stage.PullUp;
import nocking.table.Cell;
import nocking.table.DisplayLimits;
import nocking.table.TableSpec;
import org.junit.jupiter.api.Test;

/** What a receiver shows that goes by a curve of its own, has limits, or counts in ohms. */
class ReceiverViewTest {
  private static final double R25 = 10e3;
  private static final double BETA = 3950;

  private static Channel thermistor(double ohms) {
    return Channel.blank("t", "RW-T1")
        .define(d -> d.withRange(v(0), v(25)).withTolerance(v(0.5)))
        .design(
            d ->
                d.withSensor(NtcBeta.of(R25, 25, BETA))
                    .withStages(List.of(new PullUp(d.converter().reference(), v(ohms)))));
  }

  private static double ohms(double celsius, double r25, double beta) {
    return r25 * Math.exp(beta * (1 / (celsius + 273.15) - 1 / 298.15));
  }

  private static double celsius(double ohms, double r25, double beta) {
    return 1 / (Math.log(ohms / r25) / beta + 1 / 298.15) - 273.15;
  }

  private static String finding(Channel c, String rule) {
    return Analysis.of(c).findings().stream()
        .filter(f -> f.rule().equals(rule))
        .map(Finding::text)
        .findFirst()
        .orElse("");
  }

  /** A swing that was shrunk by a divider reads low by the divider's share of 5k1 over 10k. */
  @Test
  void aShrunkSwingIsBelievedToBeASmallerQuantity() {
    // The sensor gives 0.4 V + 42 mV/kPa; the receiver still takes its volts for that.
    Channel c =
        Channels.blower()
            .receiver(
                r ->
                    r.withStored(
                        StoredCurve.through(
                            Unit.of("kPa"),
                            List.of(TablePoint.of(0, 0.4), TablePoint.of(100, 4.6)))));
    double share = 10 / 15.1;
    Analysis a = Analysis.of(c);
    Belief b = a.receiver().belief().orElseThrow();
    assertThat(b.gain()).isCloseTo(share, within(1e-9));
    assertThat(b.offset()).isCloseTo((0.4 * share - 0.4) / 0.042, within(1e-9));
    assertThat(b.straight(c.definition().working())).isTrue();
    double believed = ((0.4 + 0.042 * 60) * share - 0.4) / 0.042;
    assertThat(b.worstAt()).isEqualTo(60);
    assertThat(b.believedThere()).isCloseTo(believed, within(1e-9));
    ProbeState s = a.at(60).orElseThrow();
    assertThat(s.reading()).isCloseTo(60, within(s.countsWorth()));
    assertThat(s.display()).isCloseTo(believed, within(s.countsWorth()));
    assertThat(finding(c, "receiver-believes"))
        .startsWith("The receiver believes 36.5")
        .contains("effective gain 0.6623")
        .contains("against a tolerance of 0.5");
  }

  @Test
  void aCurveKeptAsItStandsAgreesUntilThePathIsChanged() {
    Channel c = thermistor(10e3);
    Channel kept = c.receiver(r -> r.withStored(StoredCurve.asItStands(c)));
    assertThat(Analysis.of(kept).receiver().belief().orElseThrow().worst()).isLessThan(1e-9);
    assertThat(finding(kept, "receiver-believes")).contains("agrees with the path");
    // Another pull-up on the board, of which the receiver knows nothing.
    Channel changed = kept.design(d -> d.withStages(thermistor(4.7e3).design().stages()));
    double r = ohms(10, R25, BETA);
    double taken = 10e3 * (r / (r + 4.7e3)) / (1 - r / (r + 4.7e3));
    assertThat(Analysis.of(changed).receiver().shownAt(10))
        .isCloseTo(celsius(taken, R25, BETA), within(1e-9));
    assertThat(
            Analysis.of(changed)
                .receiver()
                .belief()
                .orElseThrow()
                .straight(changed.definition().working()))
        .isFalse();
  }

  /** The wrong stock curve: the card stands behind the pull-up that the channel has. */
  @Test
  void aStockCurveStandsBehindThePullUp() {
    var card =
        new SensorCard(
            "k", "Probe B", "", "", QuantityKind.TEMPERATURE, "°F", NtcBeta.of(5e3, 25, 3470), 1);
    Channel c = thermistor(10e3);
    Channel wrong = c.receiver(r -> r.withStored(StoredCurve.ofCard(card, c)));
    assertThat(Analysis.of(wrong).receiver().shownAt(20))
        .isCloseTo(celsius(ohms(20, R25, BETA), 5e3, 3470), within(1e-9));
    var volts =
        new SensorCard(
            "v",
            "Probe C",
            "",
            "",
            QuantityKind.PRESSURE,
            "kPa",
            Channels.blower().design().sensor(),
            1);
    assertThat(StoredCurve.ofCard(volts, Channels.blower()).stages()).isEmpty();
  }

  @Test
  void aMeasuredCurveIsKeptWithItsConstants() {
    Channel points =
        Channels.blower()
            .calibration(
                k -> k.withPoints(Channels.points(new double[] {0, 30, 60}, x -> 0.3 + 0.027 * x)));
    Channel fitted = Analysis.of(points).calibration().adopting("line");
    Channel kept = fitted.receiver(r -> r.withStored(StoredCurve.asItStands(fitted)));
    // Calibrated anew: what was 30 kPa at 1.11 V is now 31 kPa there.
    Channel anew =
        Analysis.of(
                kept.calibration(
                    k ->
                        k.withPoints(
                            Channels.points(new double[] {1, 31, 61}, x -> 0.3 + 0.027 * (x - 1)))))
            .calibration()
            .adopting("line");
    Belief b = Analysis.of(anew).receiver().belief().orElseThrow();
    assertThat(b.gain()).isCloseTo(1, within(1e-9));
    assertThat(b.offset()).isCloseTo(-1, within(1e-9));
  }

  @Test
  void aReceiverMayCountInAnotherUnit() {
    Channel c =
        Channels.blower()
            .receiver(
                r ->
                    r.withStored(
                        StoredCurve.through(
                            Unit.of("psi"), List.of(TablePoint.of(0, 0), TablePoint.of(10, 2)))));
    double volts = (0.4 + 0.042 * 30) * 10 / 15.1;
    assertThat(Analysis.of(c).receiver().shownAt(30))
        .isCloseTo(volts * 5 * 6.894757293168361, within(1e-9));
    Channel other =
        c.receiver(
            r ->
                r.withStored(
                    StoredCurve.through(
                        Unit.of("°C"), List.of(TablePoint.of(0, 0), TablePoint.of(10, 2)))));
    assertThat(Analysis.of(other).receiver().storedProblem())
        .hasValue("it counts in °C, and this channel in kPa");
    assertThat(finding(other, "receiver-believes")).contains("cannot be worked out");
  }

  /** A table that ends before the range does shows nothing there, and that is said. */
  @Test
  void aStoredTableShowsNothingBeyondItsEnds() {
    Channel c =
        Channels.blower()
            .receiver(
                r ->
                    r.withStored(
                        StoredCurve.through(
                            Unit.of("kPa"),
                            List.of(
                                TablePoint.of(0, 0.26),
                                TablePoint.of(20, 0.82),
                                TablePoint.of(40, 1.37)))));
    assertThat(Analysis.of(c).receiver().shownAt(60)).isNaN();
    assertThat(finding(c, "receiver-believes")).startsWith("The receiver shows nothing at");
    assertThatThrownBy(
            () ->
                StoredCurve.through(
                    Unit.of("kPa"), List.of(TablePoint.of(0, 1), TablePoint.of(10, 1))))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("differ in both");
  }

  @Test
  void aDisplayStandsStillAtItsLimits() {
    Channel c =
        Channels.blower()
            .receiver(r -> r.withLimits(DisplayLimits.typed("5 … 50", Unit.of("kPa"))));
    Analysis a = Analysis.of(c);
    assertThat(a.at(0).orElseThrow().display()).isEqualTo(5);
    assertThat(a.at(0).orElseThrow().limited()).isTrue();
    assertThat(a.at(60).orElseThrow().display()).isEqualTo(50);
    assertThat(a.at(30).orElseThrow().limited()).isFalse();
    assertThat(finding(c, "display-limit"))
        .startsWith("The display stands still below 5.0 kPa and above 50.0 kPa");
    assertThat(DisplayLimits.typed("… 10 psi", Unit.of("kPa")).high().number())
        .isCloseTo(68.94757, within(1e-5));
    assertThat(DisplayLimits.typed("-5...", Unit.of("kPa")).low().number()).isEqualTo(-5);
    assertThatThrownBy(() -> DisplayLimits.typed("9 … 3", Unit.of("kPa")))
        .hasMessageContaining("must rise");
  }

  /** Ohms need no pull-up while the channel goes by its design. */
  @Test
  void aTableInOhmsStandsByTheSensorAlone() {
    TableSpec spec = TableSpec.DEFAULT.withAxis(RawUnit.OHMS);
    Channel with = thermistor(10e3).receiver(r -> r.withTable(spec));
    Channel without = with.design(d -> d.withStages(List.of()));
    for (Channel c : List.of(with, without)) {
      List<Cell> cells = Analysis.of(c).receiver().table().result().orElseThrow().cells();
      assertThat(cells).hasSize(9);
      assertThat(cells.getFirst().raw()).isCloseTo(ohms(25, R25, BETA), within(0.1));
      assertThat(cells.getLast().raw()).isCloseTo(ohms(0, R25, BETA), within(0.1));
      for (Cell k : cells) {
        assertThat(k.out()).isCloseTo(celsius(k.raw(), R25, BETA), within(0.0051));
      }
    }
    assertThat(finding(without, "path-problem")).startsWith("The receiver's pull-up is not known");
    assertThat(Analysis.of(with).receiver().rawOf(1.65)).isCloseTo(10e3, within(1e-6));
    Channel volts = Channels.blower().receiver(r -> r.withTable(spec));
    assertThat(Analysis.of(volts).receiver().table().problem())
        .isEqualTo(
            "a raw column in ohms needs a sensor that gives a resistance; this one gives a voltage");
  }

  /** A measured curve counts in volts: in ohms it is what those ohms make behind the pull-up. */
  @Test
  void aMeasuredCurveInOhmsGoesThroughThePullUp() {
    Channel c =
        thermistor(10e3).receiver(r -> r.withTable(TableSpec.DEFAULT.withAxis(RawUnit.OHMS)));
    Channel points =
        c.calibration(
            k -> k.withPoints(Channels.points(new double[] {0, 10, 25}, x -> 2.6 - 0.04 * x)));
    Channel fitted = Analysis.of(points).calibration().adopting("line");
    var curve = Analysis.of(fitted).calibration().curve().orElseThrow();
    for (Cell k : Analysis.of(fitted).receiver().table().result().orElseThrow().cells()) {
      double volts = 3.3 * k.raw() / (k.raw() + 10e3);
      assertThat(k.out()).isCloseTo(curve.quantity(volts), within(0.0051));
    }
  }

  @Test
  void whatTheReceiverBelievesIsWhatItsDisplayShowsWhenItsWiresAreLookedAt() {
    Channel c =
        Channels.blower()
            .design(d -> d.withStages(List.of(new Divider(v(1e3), v(1e3)))))
            .receiver(
                r ->
                    r.withStored(
                        StoredCurve.through(
                            Unit.of("kPa"),
                            List.of(TablePoint.of(0, 0.4), TablePoint.of(100, 4.6)))));
    Analysis a = Analysis.of(c);
    double sound = (0.4 + 0.042 * 40) / 2;
    assertThat(a.wiring().subject().orElseThrow().shown(Fault.NONE, sound))
        .isCloseTo((sound - 0.4) / 0.042, within(1e-9));
  }
}
