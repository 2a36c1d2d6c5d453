package nocking.book;

/** A book cannot be opened, read or written; the message is one sentence for the user. */
public final class BookException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  /** Whose fault it is. */
  public enum Cause {
    /** The file is not what it should be. */
    BAD_INPUT,
    /** The disk, the folder or another program is in the way. */
    OUTSIDE
  }

  private final Cause kind;

  public BookException(Cause kind, String message) {
    super(message);
    this.kind = kind;
  }

  public BookException(Cause kind, String message, Throwable cause) {
    super(message, cause);
    this.kind = kind;
  }

  public Cause kind() {
    return kind;
  }
}
