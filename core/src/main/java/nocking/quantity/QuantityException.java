package nocking.quantity;

/** What was typed is not a number, a unit or an expression; the message is one sentence. */
public final class QuantityException extends IllegalArgumentException {
  private static final long serialVersionUID = 1L;

  public QuantityException(String message) {
    super(Sentence.readable(message));
  }
}
