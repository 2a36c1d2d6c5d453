package nocking.channel;

import nocking.quantity.Sentence;

/** A document from outside is not what it should be; the message is one sentence. */
public final class DocumentException extends IllegalArgumentException {
  private static final long serialVersionUID = 1L;

  public DocumentException(String message) {
    super(Sentence.readable(message));
  }

  public DocumentException(String message, Throwable cause) {
    super(Sentence.readable(message), cause);
  }
}
