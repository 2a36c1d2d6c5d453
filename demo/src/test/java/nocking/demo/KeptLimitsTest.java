package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Stream;
import nocking.analysis.Analysis;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.fault.FaultRow;
import nocking.finding.Finding;
import nocking.prior.FaultKind;
import nocking.quantity.Value;
import nocking.stage.InputPull;
import nocking.wiring.Thresholds;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Limits that were kept are held against the design as it is now. */
class KeptLimitsTest {
  private static final Book BOOK = Hatchery.book(Hatchery.SEED);

  static Stream<String> tags() {
    return BOOK.channels().stream().map(Channel::tag);
  }

  private static List<Finding> limits(Analysis a) {
    return a.findings().stream().filter(f -> f.rule().startsWith("fault-limits")).toList();
  }

  /** Every broken wire that limits could tell is told by those that stand there, or it is said. */
  private static void nothingIsMissedInSilence(Channel c, String after) {
    Analysis a = Analysis.of(c, BOOK.cards());
    Thresholds set = c.wiring().plan().thresholds();
    if (a.wiring().brokenWires().isEmpty() || set == null) return;
    double reference = c.design().converter().reference().number();
    Thresholds could = a.wiring().brokenWires().get().thresholds().thresholds().orElse(null);
    for (FaultRow r : a.wiring().brokenWires().get().rows()) {
      if (r.fault().kind() == FaultKind.NONE || r.floating() || could == null) continue;
      boolean tells = beyond(set, r, reference);
      if (beyond(could, r, reference) && !tells) {
        assertThat(limits(a))
            .as("%s %s: %s", c.tag(), after, r.fault().says())
            .anyMatch(
                f -> f.rule().equals("fault-limits-miss") || f.rule().equals("fault-limits-cut"));
      }
    }
    // What is offered then ends it.
    for (Finding f : limits(a)) {
      if (f.fix().isEmpty()) continue;
      Channel mended = f.fix().get().apply().apply(c);
      assertThat(limits(Analysis.of(mended, BOOK.cards()))).as("%s %s", c.tag(), after).isEmpty();
    }
  }

  private static boolean beyond(Thresholds t, FaultRow r, double reference) {
    boolean low = t.low() != null && r.volts().high() <= t.low().number();
    return low || t.high() != null && Math.min(reference, r.volts().low()) >= t.high().number();
  }

  /** Taken with the program's own button, and then its next button is pressed. */
  @ParameterizedTest
  @MethodSource("tags")
  void limitsGoStaleWithAWord(String tag) {
    Channel c = BOOK.byTag(tag).orElseThrow();
    Analysis a = Analysis.of(c, BOOK.cards());
    Channel limited =
        limits(a).stream()
            .filter(f -> f.fix().isPresent())
            .findFirst()
            .map(f -> f.fix().get().apply().apply(c))
            .orElse(c);
    nothingIsMissedInSilence(limited, "as it is");
    for (Finding f : Analysis.of(limited, BOOK.cards()).findings()) {
      if (f.fix().isEmpty()) continue;
      nothingIsMissedInSilence(f.fix().get().apply().apply(limited), f.fix().get().label());
    }
    for (double ohms : new double[] {4.7e3, 47e3, 150e3}) {
      int last = limited.design().stages().size();
      Channel pulled = limited.design(d -> d.insertStage(last, InputPull.toGround(Value.of(ohms))));
      nothingIsMissedInSilence(pulled, "pulled down");
    }
  }

  /** Behind a pull-down an open ground reads something else, where the limits no longer lie. */
  @Test
  void aPullDownMovesAnOpenGroundPastTheLimits() {
    Channel c = BOOK.byTag("SP-V1").orElseThrow();
    int last = c.design().stages().size();
    Channel pulled = c.design(d -> d.insertStage(last, InputPull.toGround(Value.of(4700))));
    assertThat(limits(Analysis.of(c)).stream().map(Finding::rule))
        .doesNotContain("fault-limits-miss");
    assertThat(limits(Analysis.of(pulled)))
        .singleElement()
        .matches(f -> f.detail().startsWith("Ground wire open gives 4.09 V and shows 771 L"));
  }
}
