package nocking.view;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import nocking.Channels;
import nocking.channel.Channel;
import nocking.finding.Findings;
import nocking.points.RawUnit;
import nocking.quantity.QuantityException;
import nocking.table.TableSpec;
import nocking.wiring.Thresholds;
import org.junit.jupiter.api.Test;

/** Each section's view says what follows from it, and no more than can be known. */
class ChannelViewTest {

  private static ChannelView of(Channel c) {
    return new ChannelView(c, List.of());
  }

  /** Without a sensor nothing follows, and nothing goes wrong. */
  @Test
  void nothingFollowsFromAnEmptyChannel() {
    ChannelView c = of(Channel.blank("x", "NEW"));
    assertThat(c.design().path()).isEmpty();
    assertThat(c.design().problem()).isEmpty();
    assertThat(c.design().equation()).isEmpty();
    assertThat(c.design().budget()).isEmpty();
    assertThat(c.design().stresses(5)).isEmpty();
    assertThat(c.calibration().fits()).isEmpty();
    assertThat(c.calibration().curve()).isEmpty();
    assertThat(c.calibration().misfit()).isEmpty();
    assertThat(c.receiver().at(5)).isEmpty();
    assertThat(c.receiver().table().problem()).isEqualTo("no table is asked for yet");
    assertThat(c.wiring().pins()).isEmpty();
    assertThat(c.wiring().faults()).isEmpty();
    assertThat(c.acceptance().rows()).isEmpty();
    assertThat(c.acceptance().worstError()).isEmpty();
    assertThat(c.workings().troubles()).isEmpty();
  }

  /** A part is worked out once; one that fails leaves one trouble, however often it is asked. */
  @Test
  void whatFailsIsNotedOnceAndTakesNothingWithIt() {
    var workings = new Workings();
    var asked = new AtomicInteger();
    Lazy<Integer> part = workings.once("the part", asked::incrementAndGet, -1);
    assertThat(part.get()).isEqualTo(1);
    assertThat(part.get()).isEqualTo(1);
    for (int i = 0; i < 3; i++) {
      int answer =
          workings.guarded(
              "the other",
              () -> {
                throw new IllegalStateException("no solution");
              },
              7);
      assertThat(answer).isEqualTo(7);
    }
    assertThat(workings.troubles()).hasSize(1);
    assertThat(workings.troubles().getFirst().says())
        .isEqualTo("the other cannot be worked out with these numbers");
    assertThat(new Trouble("a sum", new QuantityException("it is too large")).says())
        .isEqualTo("a sum cannot be worked out: it is too large");
  }

  /** What went wrong on the way is a finding of its own, and the last of its kind. */
  @Test
  void aTroubleIsAFinding() {
    ChannelView c = of(Channels.incubator());
    int without = Findings.of(c).size();
    c.workings().note(new Trouble("the table", new ArithmeticException()));
    c.workings().note(new Trouble("the check", new ArithmeticException()));
    assertThat(Findings.of(c))
        .hasSize(without + 1)
        .anySatisfy(
            f -> {
              assertThat(f.rule()).isEqualTo("not-worked-out");
              assertThat(f.headline()).startsWith("The table cannot be worked out");
            });
  }

  /** Limits in volts are limits in counts on a table of counts: the code that each volt gives. */
  @Test
  void limitsStandOnTheAxisOfTheTable() {
    Channel c =
        Channels.incubator()
            .wiring(w -> w.withPlan(w.plan().withThresholds(new Thresholds(v(0.2), null))))
            .receiver(r -> r.withTable(TableSpec.DEFAULT));
    assertThat(of(c).receiver().limits()).contains(new Thresholds(v(0.2), null));
    Channel counts = c.receiver(r -> r.withTable(r.table().withAxis(RawUnit.COUNTS)));
    Thresholds inCounts = of(counts).receiver().limits().orElseThrow();
    assertThat(inCounts.low().number()).isEqualTo(Math.floor(0.2 / 3.3 * 4096));
    assertThat(inCounts.high()).isNull();
    assertThat(of(Channels.incubator()).receiver().limits()).isEmpty();
  }

  /** The table reads what the curve reads at its cells' ends, in volts and in counts. */
  @Test
  void theReceiverShowsWhatItsTableHolds() {
    Channel c = Channels.incubator().receiver(r -> r.withTable(TableSpec.DEFAULT.withCells(33)));
    double volts = of(c).design().path().orElseThrow().output(9);
    assertThat(of(c).receiver().shown().applyAsDouble(volts)).isCloseTo(9, within(0.02));
    Channel counts = c.receiver(r -> r.withTable(r.table().withAxis(RawUnit.COUNTS)));
    assertThat(of(counts).receiver().shown().applyAsDouble(volts)).isCloseTo(9, within(0.02));
    assertThat(of(Channels.incubator()).receiver().shown().applyAsDouble(volts))
        .isCloseTo(9, within(1e-9));
  }

  /** A count of 3 mK shows two decimals; a tolerance of 0.0005 shows four. */
  @Test
  void digitsFollowFromTheCountAndTheTolerance() {
    assertThat(of(Channels.incubator()).design().decimals()).isEqualTo(2);
    Channel fine = Channels.incubator().define(d -> d.withTolerance(v(0.0005)));
    assertThat(of(fine).design().decimals()).isEqualTo(4);
    assertThat(of(fine).design().amount(9)).isEqualTo("9.0000 °C");
    assertThat(of(fine).design().error(0.01234)).isEqualTo("0.012 °C");
  }
}
