package nocking.book.internal;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import org.jdbi.v3.core.ConnectionException;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.Jdbi;
import org.jdbi.v3.core.JdbiException;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteConfig.JournalMode;
import org.sqlite.SQLiteConfig.SynchronousMode;
import org.sqlite.SQLiteDataSource;

/** All that only SQLite understands: opening, pragmas, upsert, integrity check. */
public final class SqliteDialect {
  /** "NOCK" in ASCII: tells a bench book from any other SQLite file. */
  public static final int APPLICATION_ID = 0x4E4F434B;

  private static final int BUSY_MILLISECONDS = 5000;

  /** Bytes of one document, four times what is read from a file of its own. */
  private static final int LONGEST = 256 << 20;

  private SqliteDialect() {}

  /** A connection for writing: write-ahead log, every commit through to the disk. */
  public static Handle open(Path file) {
    var config = new SQLiteConfig();
    config.setJournalMode(JournalMode.WAL);
    config.setSynchronous(SynchronousMode.FULL);
    config.setBusyTimeout(BUSY_MILLISECONDS);
    return handle(config, url(file));
  }

  /** As an address, in which a question mark of the name does not begin options of the driver. */
  static String url(Path file) {
    return "jdbc:sqlite:" + file.toAbsolutePath().toUri();
  }

  /** A connection that can change nothing, also in a folder that cannot be written. */
  public static Handle openReadOnly(Path file) {
    var config = new SQLiteConfig();
    config.setReadOnly(true);
    config.setBusyTimeout(BUSY_MILLISECONDS);
    // A write-ahead log left by a crash holds acknowledged edits: it must be read, not skipped.
    boolean plain = Files.exists(log(file)) || Files.isWritable(file.toAbsolutePath().getParent());
    return limited(handle(config, url(file) + (plain ? "" : "?immutable=1")), file);
  }

  /** A connection for writing to a copy of a file that others may have made. */
  public static Handle openCopy(Path file) {
    return limited(open(file), file);
  }

  /** A connection to what the main file alone says, whatever lies beside it. */
  public static Handle openWithoutLog(Path file) {
    var config = new SQLiteConfig();
    config.setReadOnly(true);
    return limited(handle(config, url(file) + "?immutable=1"), file);
  }

  private static Handle limited(Handle h, Path file) {
    try {
      StepLimit.on(h, file);
      return h;
    } catch (SQLException e) {
      h.close();
      throw new ConnectionException(e);
    }
  }

  /** The write-ahead log that belongs to a file. */
  public static Path log(Path file) {
    return file.resolveSibling(file.getFileName() + "-wal");
  }

  /** The journal of one who changes a file without a write-ahead log. */
  public static Path journal(Path file) {
    return file.resolveSibling(file.getFileName() + "-journal");
  }

  /** The index of the write-ahead log. */
  public static Path index(Path file) {
    return file.resolveSibling(file.getFileName() + "-shm");
  }

  /**
   * Puts what the write-ahead log holds into the main file and empties it, as far as no reader is
   * in the way; waits for none. An empty log does no harm to a file that someone puts in the place
   * of this one.
   */
  public static void checkpoint(Handle h) {
    h.execute("PRAGMA busy_timeout = 0");
    try {
      h.createQuery("PRAGMA wal_checkpoint(TRUNCATE)").mapToMap().list();
    } finally {
      h.execute("PRAGMA busy_timeout = " + BUSY_MILLISECONDS);
    }
  }

  private static Handle handle(SQLiteConfig config, String url) {
    config.setPragma(SQLiteConfig.Pragma.LIMIT_LENGTH, String.valueOf(LONGEST));
    var source = new SQLiteDataSource(config);
    source.setUrl(url);
    Handle h = Jdbi.create(source).open();
    try {
      // What stands in the file's own tables of tables is nobody's we know.
      h.execute("PRAGMA trusted_schema = OFF");
      h.execute("PRAGMA cell_size_check = ON");
      return h;
    } catch (JdbiException e) {
      h.close();
      throw e;
    }
  }

  public static int applicationId(Handle h) {
    return h.createQuery("PRAGMA application_id").mapTo(Integer.class).one();
  }

  public static int version(Handle h) {
    return h.createQuery("PRAGMA user_version").mapTo(Integer.class).one();
  }

  public static void stamp(Handle h, int version) {
    h.execute("PRAGMA application_id = " + APPLICATION_ID);
    h.execute("PRAGMA user_version = " + version);
  }

  public static String upsertChannel() {
    return """
        INSERT INTO channel (id, place, tag, document) VALUES (:id, :place, :tag, :document)
        ON CONFLICT (id) DO UPDATE SET tag = excluded.tag, document = excluded.document
        """;
  }

  /** What SQLite itself finds wrong; empty when the file is sound. */
  public static List<String> integrity(Handle h) {
    List<String> lines = h.createQuery("PRAGMA integrity_check").mapTo(String.class).list();
    return lines.equals(List.of("ok")) ? List.of() : lines;
  }

  /** A complete copy in one file, log included. */
  public static void copyTo(Handle h, Path target) throws SQLException {
    h.execute("VACUUM INTO ?", target.toAbsolutePath().toString());
  }
}
