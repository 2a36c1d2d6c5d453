package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.stream.Stream;
import nocking.analysis.Analysis;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.fault.Fault;
import nocking.fault.FaultMatrix;
import nocking.fault.FaultRow;
import nocking.fault.FaultyPath;
import nocking.fault.PairExpectation;
import nocking.fault.PinExpectation;
import nocking.fault.Subject;
import nocking.fault.ThresholdProposal;
import nocking.prior.FaultKind;
import nocking.quantity.Span;
import nocking.wiring.Thresholds;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** What the matrix of every channel promises: thresholds that tell, windows that hold. */
class FaultMatrixTest {
  private static final Book BOOK = Hatchery.book(Hatchery.SEED);

  static Stream<String> tags() {
    return BOOK.channels().stream().map(Channel::tag);
  }

  private static Analysis of(String tag) {
    return Analysis.of(BOOK.byTag(tag).orElseThrow(), BOOK.cards());
  }

  private static FaultRow row(String tag, FaultKind kind) {
    return of(tag).wiring().faults().orElseThrow().rows().stream()
        .filter(r -> r.fault().kind() == kind)
        .findFirst()
        .orElseThrow();
  }

  /** No sound reading is a fault, and every broken wire that is not named as hidden is one. */
  @ParameterizedTest
  @MethodSource("tags")
  void thresholdsTellBrokenWiresFromGoodReadings(String tag) {
    Analysis a = of(tag);
    Subject subject = a.wiring().subject().orElseThrow();
    ThresholdProposal p = a.wiring().brokenWires().orElseThrow().thresholds();
    if (p.thresholds().isEmpty()) {
      assertThat(p.hidden()).as("there is a reason why nothing is proposed").isNotEmpty();
      return;
    }
    Thresholds t = p.thresholds().get();
    Span w = a.channel().definition().working();
    double tolerance = a.channel().definition().toleranceOrNaN();
    for (int i = 0; i <= 20; i++) {
      double x = w.at(i / 20.0);
      for (double off : new double[] {-tolerance, 0, tolerance}) {
        double at = subject.channel().design().sensor().rated(a.channel().unit()).clamp(x + off);
        assertThat(t.fault(volts(subject, Fault.NONE, at)))
            .as("%s, sound at %s: %s", tag, at, t.says())
            .isFalse();
      }
      for (FaultRow r : a.wiring().brokenWires().orElseThrow().rows()) {
        boolean told =
            r.fault().kind() != FaultKind.NONE
                && p.hidden().stream().noneMatch(h -> h.fault().same(r.fault()));
        if (told) {
          assertThat(t.fault(volts(subject, r.fault(), x)))
              .as("%s, %s at %s: %s", tag, r.fault().says(), x, t.says())
              .isTrue();
        }
      }
    }
  }

  private static double volts(Subject s, Fault f, double x) {
    return FaultyPath.of(s, f, x).converter().value();
  }

  /** Two faults that look the same do so both ways, and only what floats is called floating. */
  @ParameterizedTest
  @MethodSource("tags")
  void whatLooksAlikeLooksAlikeBothWays(String tag) {
    FaultMatrix m = of(tag).wiring().faults().orElseThrow();
    for (FaultRow r : m.rows()) {
      for (FaultRow other : m.rows()) {
        boolean one = r.confusedWith().contains(other.fault().says());
        boolean two = other.confusedWith().contains(r.fault().says());
        if (r.fault().kind() == FaultKind.NONE || other.fault().kind() == FaultKind.NONE) continue;
        assertThat(one)
            .as("%s, %s, %s", tag, r.fault().says(), other.fault().says())
            .isEqualTo(two);
      }
      assertThat(r.floating()).isEqualTo(r.verdict() == FaultRow.Verdict.FLOATS);
      assertThat(r.volts().low()).isLessThanOrEqualTo(r.volts().high());
      assertThat(r.atRest()).hasSameSizeAs(m.places());
    }
    FaultRow sound = m.rows().getFirst();
    double rest = of(tag).channel().design().rest();
    assertThat(sound.verdict()).as(tag).isEqualTo(FaultRow.Verdict.HARMLESS);
    assertThat(sound.shownAtRest())
        .as(tag)
        .isCloseTo(
            of(tag).receiver().believed().isPresent() ? of(tag).receiver().shownAt(rest) : rest,
            within(of(tag).channel().definition().toleranceOrNaN()));
  }

  /** NAMUR NE 43: 3.6 mA and 21 mA across 150 Ω. */
  @Test
  void loopIsJudgedByItsFailureSignals() {
    Thresholds t = BOOK.byTag("HD-L1").orElseThrow().wiring().plan().thresholds();
    assertThat(t.low().number()).isCloseTo(0.54, within(0.003));
    assertThat(t.high().number()).isCloseTo(3.15, within(0.003));
  }

  /** Where sensor and converter share their supply a low one is not seen and does no harm. */
  @Test
  void lowSupplyCancelsWhereTheConverterSharesIt() {
    assertThat(row("RW-T1", FaultKind.SUPPLY_LOW).verdict()).isEqualTo(FaultRow.Verdict.HARMLESS);
    assertThat(row("SG-P1", FaultKind.SUPPLY_LOW).verdict()).isEqualTo(FaultRow.Verdict.HARMLESS);
    FaultRow fixed = row("BL-P1", FaultKind.SUPPLY_LOW);
    assertThat(fixed.worst()).isCloseTo(-0.1 * (60 + 100 * 0.08 / 0.84), within(0.1));
  }

  /**
   * The wire off floats at the bridge amplifier, and what the display may say is the whole range.
   */
  @Test
  void bridgeInputFloatsOverItsWholeRange() {
    FaultRow open = row("FH-W1", FaultKind.SIGNAL_OPEN);
    assertThat(open.floating()).isTrue();
    assertThat(open.volts()).isEqualTo(new Span(0.05, 4.95));
    assertThat(open.worst()).isNaN();
  }

  /** Mains: without its capacitor the mean is left, 2/π of the peak. */
  @Test
  void rectifierWithoutItsCapacitorReadsTheMean() {
    FaultRow mean = row("AE-V1", FaultKind.CAPACITOR_OPEN);
    FaultRow sound = row("AE-V1", FaultKind.NONE);
    assertThat(mean.volts().high() / sound.volts().high()).isCloseTo(2 / Math.PI, within(0.01));
    assertThat(mean.verdict()).isEqualTo(FaultRow.Verdict.TOLD);
  }

  /** A sound channel reads inside every window that its wire plan states. */
  @ParameterizedTest
  @MethodSource("tags")
  void windowsHoldWhatASoundChannelReads(String tag) {
    Analysis a = of(tag);
    for (PinExpectation p : a.wiring().pins()) {
      if (p.window() == null) continue;
      assertThat(p.window().contains(p.atRest())).as("%s %s", tag, p.name()).isTrue();
      assertThat(p.window().width()).as("%s %s", tag, p.name()).isPositive();
    }
    for (PairExpectation p : a.wiring().pairs()) {
      if (!Double.isNaN(p.ohms()))
        assertThat(p.holds(p.ohms())).as("%s %s", tag, p.name()).isTrue();
    }
  }

  /** 350 Ω arms: across a corner ¾ of an arm's resistance, across the bridge one arm's. */
  @Test
  void bridgeIsMeasuredCornerByCorner() {
    var pairs = of("FH-W1").wiring().pairs();
    assertThat(pairs.get(0).ohms()).isCloseTo(350, within(1e-6));
    assertThat(pairs.get(1).ohms()).isCloseTo(262.5, within(1e-6));
    assertThat(pairs.get(2).ohms()).isCloseTo(262.5, within(1e-6));
  }

  /** At a mains pin the meter must stand on alternating volts; behind the rectifier it must not. */
  @Test
  void mainsPinIsMarkedAsAlternating() {
    assertThat(of("AE-V1").wiring().pins())
        .extracting(PinExpectation::atRestSays)
        .containsExactly("230.0 V~ ±4.2", "0 mV ±20", "322.6 V ±5.8", "2.666 V ±0.050");
    assertThat(of("AE-V1").wiring().pins().getFirst().rangeSays()).isEqualTo("180 … 260 V~");
  }
}
