package nocking.view;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.band.AlarmBand;
import nocking.band.BandPlan;
import nocking.band.SwitchPoint;
import nocking.channel.Channel;
import nocking.channel.StoredCurve;
import nocking.firmware.Decoder;
import nocking.quantity.Spread;
import nocking.quantity.Unit;
import nocking.sensor.TablePoint;
import nocking.stage.Divider;
import nocking.table.DisplayLimits;
import nocking.table.TableSpec;
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

  private static final Random RANDOM = new Random(20261127);

  private static StoredCurve anyCurve() {
    double v1 = 0.2 + RANDOM.nextDouble();
    double v2 = v1 + 0.5 + RANDOM.nextDouble();
    boolean falls = RANDOM.nextInt(4) == 0;
    return StoredCurve.through(
        Unit.of("kPa"),
        List.of(TablePoint.of(0, falls ? v2 : v1), TablePoint.of(60, falls ? v1 : v2)));
  }

  /**
   * Where the grid says that an alarm comes is where the decoder changes its state, whatever curve
   * the receiver goes by and wherever its display stops; and the true quantity there is the one
   * that the circuit makes these volts of.
   */
  @Test
  void theDecoderChangesWhereTheEdgeIs() {
    for (int n = 0; n < 200; n++) {
      double low = 5 + 20 * RANDOM.nextDouble();
      double high = low + 5 + 20 * RANDOM.nextDouble();
      boolean own = RANDOM.nextBoolean();
      boolean limited = RANDOM.nextBoolean();
      boolean table = RANDOM.nextBoolean();
      Channel c =
          Channels.blower()
              .wiring(
                  w ->
                      w.withBands(
                          BandPlan.EMPTY.withAlarms(
                              List.of(
                                  new AlarmBand("low", null, v(low)),
                                  new AlarmBand("normal", v(low), v(high)),
                                  new AlarmBand("high", v(high), null)))))
              .receiver(
                  r ->
                      r.withStored(own ? anyCurve() : null)
                          .withTable(table ? TableSpec.DEFAULT : null)
                          .withLimits(limited ? new DisplayLimits(v(low + 1), v(high - 1)) : null));
      Analysis a = Analysis.of(c);
      Decoder d = a.wiring().alarmDecoder();
      for (AlarmEdge e : a.wiring().alarmEdges()) {
        if (!e.reached()) continue;
        // A code stands for the middle of its step.
        int from = Math.max(0, e.code() - 1);
        assertThat(d.state(from)).as("%s", e).isNotEqualTo(d.state(e.code() + 1));
        assertThat((0.4 + 0.042 * e.truly()) * 10 / 15.1).isCloseTo(e.volts(), within(1e-9));
        if (!own && !table) assertThat(e.truly()).isCloseTo(e.quantity(), within(1e-9));
      }
    }
  }

  /** A contact sits on the mechanism, whatever the receiver believes and its display can show. */
  @Test
  void aContactGoesByWhatIsTrue() {
    Channel c =
        Channels.blower()
            .receiver(
                r ->
                    r.withStored(
                            StoredCurve.through(
                                Unit.of("kPa"),
                                List.of(TablePoint.of(0, 0.4), TablePoint.of(100, 4.6))))
                        .withLimits(new DisplayLimits(v(0), v(20))))
            .wiring(
                w ->
                    w.withBands(
                        BandPlan.EMPTY.withSwitches(
                            List.of(new SwitchPoint("end", v(40), v(2), null, null, false)))));
    Analysis a = Analysis.of(c);
    Decoder d = a.wiring().contactDecoder(0);
    for (double x : new double[] {10, 37, 43, 55}) {
      double volts = (0.4 + 0.042 * x) * 10 / 15.1;
      String level = x > 40 ? "high" : "low";
      assertThat(a.wiring().contactsAt(volts)).containsExactly(level);
      assertThat(d.states().get(d.state((int) (volts / 3.3 * 4096)))).isEqualTo(level);
    }
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
