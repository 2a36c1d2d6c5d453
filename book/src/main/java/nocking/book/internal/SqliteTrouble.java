package nocking.book.internal;

import java.nio.file.Path;
import java.util.Locale;
import nocking.book.BookException;
import nocking.book.BookException.Cause;
import org.flywaydb.core.api.FlywayException;
import org.sqlite.SQLiteErrorCode;
import org.sqlite.SQLiteException;

/** Tells damage of a book from trouble of the machine; the two are never taken for each other. */
public final class SqliteTrouble {
  /** Extended result codes hold the primary one in their lowest byte (SQLite, Result Codes). */
  private static final int PRIMARY = 0xff;

  private SqliteTrouble() {}

  /** What is said of a book that could not be opened or read. */
  public static BookException reading(Path book, Throwable e) {
    String machine = machine(e);
    if (!machine.isEmpty()) {
      return new BookException(
          Cause.OUTSIDE, "%s cannot be opened: %s".formatted(book, machine), e);
    }
    return new BookException(
        Cause.BAD_INPUT, "%s is damaged or not a bench book: %s".formatted(book, words(e)), e);
  }

  /** What is said of a book that could not be written. */
  public static BookException writing(Path book, Throwable e) {
    String machine = machine(e);
    return new BookException(
        Cause.OUTSIDE,
        "%s cannot be written: %s".formatted(book, machine.isEmpty() ? words(e) : machine),
        e);
  }

  /** True when the machine, the disk or another program is in the way, and not the file. */
  public static boolean ofMachine(Throwable e) {
    return !machine(e).isEmpty();
  }

  private static String machine(Throwable e) {
    SQLiteException sqlite = cause(e, SQLiteException.class);
    if (sqlite == null) {
      // What comes from the tables' own history is about the file; else no driver was there to ask.
      return cause(e, FlywayException.class) == null
          ? "the database driver does not work on this machine: " + words(e)
          : "";
    }
    int primary = sqlite.getResultCode().code & PRIMARY;
    return switch (SQLiteErrorCode.getErrorCode(primary)) {
      case SQLITE_BUSY, SQLITE_LOCKED, SQLITE_PROTOCOL -> "another program is using it just now";
      case SQLITE_FULL -> "the disk is full";
      case SQLITE_READONLY -> "the file, its folder or the disk is read-only";
      case SQLITE_CANTOPEN -> "the system refuses the file or the log beside it";
      case SQLITE_IOERR -> "the disk reports an error";
      case SQLITE_NOMEM -> "there is not enough memory";
      case SQLITE_PERM, SQLITE_AUTH -> "permission is refused";
      case SQLITE_NOLFS -> "the disk does not take files of this size";
      case SQLITE_INTERRUPT -> "it was interrupted";
      default -> "";
    };
  }

  private static <T extends Throwable> T cause(Throwable e, Class<T> kind) {
    for (Throwable t = e; t != null; t = t.getCause()) {
      if (kind.isInstance(t)) return kind.cast(t);
    }
    return null;
  }

  /** SQLite's own words, without its code in brackets. */
  public static String words(Throwable e) {
    Throwable t = e;
    while (t.getCause() != null) t = t.getCause();
    String message = String.valueOf(t.getMessage()).lines().findFirst().orElse("").strip();
    int from = message.lastIndexOf('(');
    boolean coded = message.startsWith("[SQLITE") && message.endsWith(")") && from > 0;
    String words = coded ? message.substring(from + 1, message.length() - 1) : message;
    return words.isEmpty() ? t.getClass().getSimpleName().toLowerCase(Locale.ROOT) : words;
  }
}
