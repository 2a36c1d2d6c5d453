package nocking.bench.instrument;

/** An instrument that did not do what it was asked; the message is one sentence without a stop. */
public final class InstrumentException extends Exception {
  private static final long serialVersionUID = 1L;

  /** What went wrong. */
  public enum Kind {
    /** Nobody takes the connection. */
    REFUSED,
    NO_ANSWER,
    /** It answered something else. */
    ODD_ANSWER,
    OVERRANGE,
    DISCONNECTED
  }

  private final Kind kind;

  public InstrumentException(Kind kind, String message) {
    super(message);
    this.kind = kind;
  }

  public Kind kind() {
    return kind;
  }

  /**
   * True when the connection is of no more use: what comes over it may belong to an old question.
   */
  public boolean breaks() {
    return kind != Kind.OVERRANGE;
  }
}
