package nocking.app.desk;

import java.util.function.Supplier;
import nocking.book.BookException;
import nocking.quantity.QuantityException;

/**
 * How work on files went, in one sentence.
 *
 * @param failed true when the sentence says why not
 */
public record Outcome(String sentence, boolean failed) {

  /** Does the work, whose sentence says what was done; a refusal becomes the sentence. */
  public static Outcome of(Supplier<String> work) {
    try {
      return new Outcome(work.get(), false);
    } catch (BookException | QuantityException e) {
      return new Outcome(e.getMessage() + ".", true);
    }
  }
}
