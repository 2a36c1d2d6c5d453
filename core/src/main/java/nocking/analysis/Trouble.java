package nocking.analysis;

import java.util.Optional;
import nocking.channel.WorkStep;
import nocking.finding.Finding;
import nocking.finding.Severity;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;

/**
 * A part of an analysis that could not be worked out.
 *
 * @param part what, for example {@code the error budget}
 */
public record Trouble(String part, RuntimeException cause) {

  /** One sentence. */
  public String says() {
    return cause instanceof QuantityException
        ? "%s cannot be worked out: %s".formatted(part, cause.getMessage())
        : "%s cannot be worked out with these numbers".formatted(part);
  }

  Finding finding() {
    String sentence = says();
    return new Finding(
        "not-worked-out",
        Severity.WARNING,
        Sentence.capital(sentence),
        "Everything else of this channel stands. Look for a number that is far from the others.",
        WorkStep.DEFINE,
        -1,
        Optional.empty());
  }
}
