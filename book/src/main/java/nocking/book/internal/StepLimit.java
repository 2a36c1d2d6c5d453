package nocking.book.internal;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.statement.SqlLogger;
import org.jdbi.v3.core.statement.StatementContext;
import org.sqlite.ProgressHandler;

/**
 * An end to every statement on a file that others may have made. What a statement of this program
 * takes grows with the file; one that takes far more goes round in circles that the file brought
 * along.
 */
final class StepLimit extends ProgressHandler implements SqlLogger {
  /** Steps of SQLite's machine between two looks at the limit. */
  private static final int BLOCK = 100_000;

  /** About a second. */
  private static final long LEAST = 1000;

  /** A row that is read takes a score of steps, and a score of bytes at least. */
  private static final long BYTES_A_BLOCK = 1000;

  private final long most;
  private long blocks;

  private StepLimit(long most) {
    this.most = most;
  }

  /** Limits each statement of a connection by the size of its file. */
  static void on(Handle h, Path file) throws SQLException {
    long bytes = size(file) + size(SqliteDialect.log(file));
    var limit = new StepLimit(LEAST + bytes / BYTES_A_BLOCK);
    h.setSqlLogger(limit);
    setHandler(h.getConnection(), BLOCK, limit);
  }

  private static long size(Path file) {
    try {
      return Files.exists(file) ? Files.size(file) : 0;
    } catch (IOException e) {
      return 0;
    }
  }

  @Override
  public void logBeforeExecution(StatementContext context) {
    blocks = 0;
  }

  @Override
  protected int progress() {
    blocks++;
    return blocks > most ? 1 : 0;
  }
}
