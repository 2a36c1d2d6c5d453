package nocking.book;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Arrays;
import java.util.Optional;
import nocking.book.BookException.Cause;
import nocking.book.internal.BookLock;
import nocking.book.internal.BookLock.NoLockException;
import nocking.book.internal.BookSchema;
import nocking.book.internal.Migrations;
import nocking.book.internal.OpenedFile;
import nocking.book.internal.SqliteDialect;
import nocking.book.internal.SqliteTrouble;
import nocking.book.internal.WholeFile;
import org.flywaydb.core.api.FlywayException;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.JdbiException;

/**
 * How a bench book is opened or made. Whatever fails, the lock is free again and no part is left.
 */
final class BookOpening {
  private static final byte[] SQLITE = "SQLite format 3\0".getBytes(StandardCharsets.US_ASCII);

  private final Path path;
  private final Clock clock;

  BookOpening(Path path, Clock clock) {
    this.path = path;
    this.clock = clock;
  }

  BookFile toWrite() {
    if (Files.exists(path, LinkOption.NOFOLLOW_LINKS)) requireBook();
    Optional<BookLock> lock;
    try {
      lock = BookLock.take(path);
    } catch (NoLockException e) {
      if (Files.exists(path)) return readOnly(e.getMessage());
      throw new BookException(
          Cause.OUTSIDE, "%s cannot be made: %s".formatted(path, e.getMessage()), e);
    } catch (IOException e) {
      String why = FileTrouble.why(path, e);
      if (Files.exists(path)) return readOnly("its folder cannot be written: " + why);
      throw new BookException(Cause.OUTSIDE, "%s cannot be made: %s".formatted(path, why), e);
    }
    if (lock.isEmpty()) return inUse();
    boolean kept = false;
    try {
      BookFile book = locked(lock.get());
      kept = book.writable();
      return book;
    } catch (JdbiException | FlywayException e) {
      throw SqliteTrouble.reading(path, e);
    } catch (IOException e) {
      throw new BookException(
          Cause.OUTSIDE, "%s cannot be opened: %s".formatted(path, FileTrouble.why(path, e)), e);
    } finally {
      if (!kept) lock.get().close();
    }
  }

  /** Someone else has the lock: a writer, or one who makes the book this very moment. */
  private BookFile inUse() {
    if (!Files.exists(path)) {
      throw new BookException(
          Cause.OUTSIDE, path + " is in use: another window or command is making it just now");
    }
    return readOnly("another window has it open");
  }

  private BookFile locked(BookLock lock) throws IOException {
    if (!Files.exists(path)) make();
    Path file = path.toRealPath();
    if (!Files.isWritable(file)) return readOnly("the file cannot be written");
    LeftoverLog.requireOwn(file);
    State state = state(file);
    if (!state.readOnlyBecause.isEmpty()) return readOnly(state.readOnlyBecause);
    if (state.version < Migrations.CURRENT) Migrations.run(file, state.version);
    Handle handle = SqliteDialect.open(file);
    try {
      SqliteDialect.stamp(handle, Migrations.CURRENT);
      return new BookFile(
          path, handle, Optional.of(lock), Optional.of(new OpenedFile(path)), clock, "");
    } catch (JdbiException | IOException e) {
      handle.close();
      throw e;
    }
  }

  /** A new book is made beside its place and put there whole, so that nobody meets half of one. */
  private void make() throws IOException {
    try (WholeFile whole = WholeFile.anew(path.toAbsolutePath())) {
      Path half = whole.part();
      try {
        Migrations.run(half, 0);
        try (Handle handle = SqliteDialect.open(half)) {
          SqliteDialect.stamp(handle, Migrations.CURRENT);
        }
      } finally {
        Files.deleteIfExists(SqliteDialect.journal(half));
        Files.deleteIfExists(SqliteDialect.log(half));
        Files.deleteIfExists(SqliteDialect.index(half));
      }
      whole.put();
    }
  }

  BookFile toRead() {
    requireBook();
    try {
      Path file = path.toRealPath();
      LeftoverLog.requireOwn(file);
      State state = state(file);
      return readOnly(
          state.readOnlyBecause.isEmpty() ? "it was opened to read" : state.readOnlyBecause);
    } catch (JdbiException e) {
      throw SqliteTrouble.reading(path, e);
    } catch (IOException e) {
      throw unreadable(e);
    }
  }

  private BookFile readOnly(String because) {
    try {
      Path file = path.toRealPath();
      LeftoverLog.requireRegular(file);
      state(file);
      Handle handle = SqliteDialect.openReadOnly(file);
      return new BookFile(path, handle, Optional.empty(), Optional.empty(), clock, because);
    } catch (JdbiException e) {
      throw SqliteTrouble.reading(path, e);
    } catch (IOException e) {
      throw unreadable(e);
    }
  }

  /**
   * @param readOnlyBecause why it must not be written to, as far as the file itself says so
   */
  private record State(int version, String readOnlyBecause) {}

  /** What the file says of itself, held against what there is. */
  private State state(Path file) {
    try (Handle h = SqliteDialect.openReadOnly(file)) {
      if (SqliteDialect.applicationId(h) != SqliteDialect.APPLICATION_ID) {
        throw new BookException(
            Cause.BAD_INPUT, path + " is a database, but not a bench book of Nocking");
      }
      int version = SqliteDialect.version(h);
      var schema = BookSchema.of(h, version);
      if (!schema.broken().isEmpty()) {
        throw new BookException(
            Cause.BAD_INPUT,
            "%s is damaged or not a bench book: %s".formatted(path, schema.broken()));
      }
      return new State(
          version, version > Migrations.CURRENT ? newer(version) : schema.readOnlyBecause());
    } catch (JdbiException e) {
      if (Files.exists(SqliteDialect.log(file)) && !Files.isWritable(file.getParent())) {
        throw new BookException(
            Cause.OUTSIDE,
            "%s has a log beside it (%s) that can be read only where the folder can be written: copy both there"
                .formatted(path, SqliteDialect.log(file).getFileName()),
            e);
      }
      throw e;
    }
  }

  private static String newer(int version) {
    return "a newer Nocking wrote it (book version %d, this one writes %d)"
        .formatted(version, Migrations.CURRENT);
  }

  private void requireBook() {
    if (!Files.exists(path)) {
      throw new BookException(Cause.BAD_INPUT, path + " does not exist");
    }
    if (Files.isDirectory(path)) {
      throw new BookException(Cause.BAD_INPUT, path + " is a folder, not a bench book");
    }
    // To look into a pipe or a device may take for ever.
    if (!Files.isRegularFile(path)) {
      throw new BookException(Cause.BAD_INPUT, path + " is no file, so it is no bench book");
    }
    try (var in = Files.newInputStream(path)) {
      if (!Arrays.equals(in.readNBytes(SQLITE.length), SQLITE)) {
        throw new BookException(
            Cause.BAD_INPUT, path + " is not a bench book: it does not begin like a database file");
      }
    } catch (IOException e) {
      throw unreadable(e);
    }
  }

  private BookException unreadable(IOException e) {
    return new BookException(
        Cause.OUTSIDE, "%s cannot be read: %s".formatted(path, FileTrouble.why(path, e)), e);
  }
}
