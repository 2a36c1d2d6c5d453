package nocking.book.exchange;

import nocking.quantity.Sentence;

/** A column file is not what it should be; the message is one sentence naming file, row, column. */
public final class ColumnException extends IllegalArgumentException {
  private static final long serialVersionUID = 1L;

  public ColumnException(String message) {
    super(Sentence.readable(message));
  }
}
