package nocking.book;

import static java.nio.file.LinkOption.NOFOLLOW_LINKS;

import java.io.IOException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import nocking.book.BookException.Cause;
import nocking.book.internal.SqliteDialect;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.JdbiException;

/**
 * A log or a journal that lies beside a book when it is opened: left by a crash, in which case it
 * holds acknowledged edits, or of another book or another state of this one, whose pages SQLite
 * would put among those of the book without a word. Both are examined on copies before the book is
 * touched.
 */
final class LeftoverLog {
  /**
   * Bytes of a log's header; a log that is no longer holds no page (SQLite, Database File Format,
   * 4.1).
   */
  private static final int HEADER = 32;

  /** What a file holds: what is wrong with it, and its last line; empty when it cannot be read. */
  private record State(List<String> problems, Optional<BookLog.Line> last) {}

  private LeftoverLog() {}

  /**
   * @param book itself, no link to it
   * @throws BookException when a log beside the book is not its own, or is no file
   */
  static void requireOwn(Path book) {
    requireRegular(book);
    requireOwn(book, SqliteDialect.log(book));
    requireOwn(book, SqliteDialect.journal(book));
  }

  /**
   * @throws BookException when what lies in the place of a log is no file
   */
  static void requireRegular(Path book) {
    for (Path beside :
        List.of(SqliteDialect.log(book), SqliteDialect.index(book), SqliteDialect.journal(book))) {
      if (Files.exists(beside, NOFOLLOW_LINKS) && !Files.isRegularFile(beside, NOFOLLOW_LINKS)) {
        throw new BookException(
            Cause.OUTSIDE,
            "%s cannot be opened: %s beside it is no file, and a link is not followed; move it away"
                .formatted(book, beside.getFileName()));
      }
    }
  }

  private static void requireOwn(Path book, Path log) {
    try {
      if (!Files.exists(log) || Files.size(log) <= HEADER) return;
      if (own(book, log)) return;
    } catch (NoSuchFileException e) {
      // Its writer has put it into the book this very moment.
      return;
    } catch (IOException e) {
      throw new BookException(
          Cause.OUTSIDE,
          "%s cannot be examined together with %s: %s"
              .formatted(book, log.getFileName(), FileTrouble.why(log, e)),
          e);
    }
    throw new BookException(
        Cause.BAD_INPUT,
        "%s beside %s belongs to another book or to another state of this one: move it away, then the book opens as its file is"
            .formatted(log.getFileName(), book));
  }

  private static boolean own(Path book, Path log) throws IOException {
    Path folder = Files.createTempDirectory("nocking-log");
    requireRoom(book, log, folder);
    Path copy = folder.resolve("book");
    try {
      var before = List.of(Files.getLastModifiedTime(book), Files.getLastModifiedTime(log));
      Files.copy(book, copy);
      State alone = state(() -> SqliteDialect.openWithoutLog(copy));
      String end = log.getFileName().toString().substring(book.getFileName().toString().length());
      Files.copy(log, copy.resolveSibling(copy.getFileName() + end));
      State both = state(() -> SqliteDialect.openCopy(copy));
      // Someone who writes just now has it open, and the log is the writer's.
      if (!before.equals(
          List.of(Files.getLastModifiedTime(book), Files.getLastModifiedTime(log)))) {
        return true;
      }
      // A crash while the log was put into the book leaves a file that is whole only with its log.
      if (!alone.problems.isEmpty()) return true;
      return both.problems.isEmpty() && follows(both, alone, copy);
    } finally {
      for (String end : List.of("", "-wal", "-shm", "-journal")) {
        Files.deleteIfExists(copy.resolveSibling(copy.getFileName() + end));
      }
      Files.deleteIfExists(folder);
    }
  }

  /** A file may call itself larger than any disk. */
  private static void requireRoom(Path book, Path log, Path folder) throws IOException {
    if (Files.size(book) + Files.size(log) > Files.getFileStore(folder).getUsableSpace() / 2) {
      Files.delete(folder);
      throw new FileSystemException(
          book.toString(), null, "there is not enough room for a copy of both");
    }
  }

  private interface Opening {
    Handle open();
  }

  private static State state(Opening opening) {
    try (Handle h = opening.open()) {
      return new State(new BookProblems(h).list(), new BookLog(h).last());
    } catch (JdbiException e) {
      return new State(List.of("cannot be read"), Optional.empty());
    }
  }

  /** True when the chain with the log goes on from where it ended without. */
  private static boolean follows(State both, State alone, Path copy) {
    if (alone.last.isEmpty() || both.last.equals(alone.last)) return true;
    try (Handle h = SqliteDialect.openCopy(copy)) {
      return new BookLog(h).has(alone.last.get());
    }
  }
}
