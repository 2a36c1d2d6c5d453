package nocking.algebra;

import nocking.quantity.Sentence;

/** An expression cannot be evaluated, solved or differentiated; the message is one sentence. */
public final class AlgebraException extends IllegalArgumentException {
  private static final long serialVersionUID = 1L;

  public AlgebraException(String message) {
    super(Sentence.readable(message));
  }
}
