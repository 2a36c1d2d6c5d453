package nocking.book.internal;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.Jdbi;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteConfig.JournalMode;
import org.sqlite.SQLiteConfig.SynchronousMode;
import org.sqlite.SQLiteDataSource;

/** All that only SQLite understands: opening, pragmas, upsert, integrity check. */
public final class SqliteDialect {
  /** "NOCK" in ASCII: tells a bench book from any other SQLite file. */
  public static final int APPLICATION_ID = 0x4E4F434B;

  private static final int BUSY_MILLISECONDS = 5000;

  private SqliteDialect() {}

  /** A connection for writing: write-ahead log, every commit through to the disk. */
  public static Handle open(Path file) {
    var config = new SQLiteConfig();
    config.setJournalMode(JournalMode.WAL);
    config.setSynchronous(SynchronousMode.FULL);
    config.setBusyTimeout(BUSY_MILLISECONDS);
    return handle(config, "jdbc:sqlite:" + file.toAbsolutePath());
  }

  /** A connection that can change nothing, also in a folder that cannot be written. */
  public static Handle openReadOnly(Path file) {
    var config = new SQLiteConfig();
    config.setReadOnly(true);
    config.setBusyTimeout(BUSY_MILLISECONDS);
    // A write-ahead log left by a crash holds acknowledged edits: it must be read, not skipped.
    boolean log = Files.exists(file.resolveSibling(file.getFileName() + "-wal"));
    String mode = log || Files.isWritable(file.toAbsolutePath().getParent()) ? "" : "?immutable=1";
    return handle(config, "jdbc:sqlite:" + file.toAbsolutePath().toUri() + mode);
  }

  private static Handle handle(SQLiteConfig config, String url) {
    var source = new SQLiteDataSource(config);
    source.setUrl(url);
    return Jdbi.create(source).open();
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
