package nocking.fit;

import nocking.quantity.Sentence;

/** A model cannot be fitted to these points; the message is one sentence. */
public final class FitException extends IllegalArgumentException {
  private static final long serialVersionUID = 1L;

  public FitException(String message) {
    super(Sentence.readable(message));
  }
}
