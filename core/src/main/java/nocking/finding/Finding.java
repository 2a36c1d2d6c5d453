package nocking.finding;

import java.util.Optional;
import nocking.channel.WorkStep;

/**
 * One judgement.
 *
 * @param rule key of the rule, for example {@code rail-clip}
 * @param headline what stands out, without a full stop
 * @param detail the numbers and why they matter, one or two sentences
 * @param step the stage where it belongs
 * @param item index of the stage, point or check line that it concerns; −1 when none
 */
public record Finding(
    String rule,
    Severity severity,
    String headline,
    String detail,
    WorkStep step,
    int item,
    Optional<Fix> fix) {

  static Finding of(String rule, Severity severity, WorkStep step, String headline, String detail) {
    return new Finding(rule, severity, headline, detail, step, -1, Optional.empty());
  }

  Finding at(int index) {
    return new Finding(rule, severity, headline, detail, step, index, fix);
  }

  Finding with(Fix mend) {
    return new Finding(rule, severity, headline, detail, step, item, Optional.of(mend));
  }

  /** The headline as a sentence; one that asks has its end already. */
  public String sentence() {
    return headline.endsWith("?") ? headline : headline + ".";
  }

  /** Headline and detail as one text. */
  public String text() {
    return sentence() + " " + detail;
  }
}
