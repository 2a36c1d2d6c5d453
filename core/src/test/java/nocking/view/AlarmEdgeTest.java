package nocking.view;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.band.AlarmBand;
import nocking.band.BandPlan;
import nocking.band.SwitchPoint;
import nocking.channel.Channel;
import nocking.quantity.Spread;
import nocking.stage.Divider;
import org.junit.jupiter.api.Test;

/** Where alarms and contacts come, and how far their parts may shift them. */
class AlarmEdgeTest {
  private static Channel blower() {
    return Channels.blower()
        .design(
            d ->
                d.withStages(
                    List.of(
                        new Divider(
                            v(5100).withSpread(Spread.percent(1)),
                            v(10e3).withSpread(Spread.percent(1))))))
        .wiring(
            w ->
                w.withBands(
                    BandPlan.EMPTY.withAlarms(
                        List.of(
                            new AlarmBand("low", null, v(10)),
                            new AlarmBand("in range", v(10), v(50)),
                            new AlarmBand("burst", v(150), null)))));
  }

  @Test
  void anAlarmComesEarlyOrLateByWhatItsPartsAllow() {
    List<AlarmEdge> edges = Analysis.of(blower()).wiring().alarmEdges();
    assertThat(edges).hasSize(4);
    AlarmEdge e = edges.get(2);
    assertThat(e.quantity()).isEqualTo(50);
    double sensor = 0.4 + 0.042 * 50;
    double volts = sensor * 10 / 15.1;
    assertThat(e.volts()).isCloseTo(volts, within(1e-9));
    assertThat(e.code()).isEqualTo((int) Math.floor(volts / 3.3 * 4096));
    // Both resistors at their limits, read back by the nominal equation: the corner by hand.
    double most = sensor * 10.1 / (10.1 + 5.1 * 0.99);
    double shift = (most - volts) * 15.1 / 10 / 0.042;
    double halfCount = 3.3 / 4096 / 2 * 15.1 / 10 / 0.042;
    assertThat(e.spread()).isCloseTo(shift + halfCount, within(0.03 * shift));
    assertThat(e.calibrated()).isLessThan(e.spread());
    assertThat(e.reached()).isTrue();
    AlarmEdge burst = edges.getLast();
    assertThat(burst.reached()).as("4.4 V behind the divider, the converter ends at 3.3").isFalse();
    assertThat(burst.spread()).isNaN();
  }

  @Test
  void aContactReadsLowOrHighOnEitherSideOfItsPlace() {
    Channel c =
        Channels.blower()
            .wiring(
                w ->
                    w.withBands(
                        BandPlan.EMPTY.withSwitches(
                            List.of(
                                new SwitchPoint("end", v(40), v(2), null, null, true),
                                new SwitchPoint("start", v(5), v(1), null, null, false)))));
    Analysis a = Analysis.of(c);
    var path = a.design().path().orElseThrow();
    assertThat(a.wiring().contactsAt(path.output(50))).containsExactly("low", "high");
    assertThat(a.wiring().contactsAt(path.output(20))).containsExactly("high", "high");
    assertThat(a.wiring().contactsAt(path.output(40))).containsExactly("either", "high");
    assertThat(a.wiring().contactsAt(path.output(0))).containsExactly("high", "low");
    assertThat(a.wiring().contactsAt(Double.NaN)).isEmpty();
    assertThat(a.wiring().contactDecoder(0).states()).startsWith("low", "high", "either");
  }
}
