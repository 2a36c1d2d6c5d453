package nocking.view;

import nocking.quantity.QuantityException;

/**
 * A part that could not be worked out.
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
}
