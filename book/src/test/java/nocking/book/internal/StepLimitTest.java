package nocking.book.internal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.JdbiException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a statement on a file of others may take. */
class StepLimitTest {
  private static final int ROWS = 200_000;

  @TempDir Path folder;

  private Path file(String... statements) throws SQLException {
    Path file = folder.resolve("foreign.db");
    try (var c = DriverManager.getConnection("jdbc:sqlite:" + file);
        var s = c.createStatement()) {
      for (String one : statements) s.execute(one);
    }
    return file;
  }

  private static final String NUMBERS =
      "WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n";

  /** The test itself would not end otherwise. */
  @Test
  void whatNeverEndsIsEnded() throws SQLException {
    Path file = file("CREATE VIEW endless AS " + NUMBERS + ") SELECT i FROM n");
    try (Handle h = SqliteDialect.openReadOnly(file)) {
      assertThatThrownBy(() -> count(h, "endless")).isInstanceOf(JdbiException.class);
    }
  }

  /** Rows take what they take, and each statement begins anew. */
  @Test
  void whatGrowsWithTheFileIsNot() throws SQLException {
    Path file =
        file(
            "CREATE TABLE row (i INTEGER PRIMARY KEY, text TEXT)",
            "INSERT INTO row " + NUMBERS + " LIMIT %d) SELECT i, 'x' FROM n".formatted(ROWS));
    try (Handle h = SqliteDialect.openReadOnly(file)) {
      for (int i = 0; i < 20; i++) {
        assertThat(count(h, "row WHERE text LIKE '%x%' AND i + 0 > 0")).isEqualTo(ROWS);
      }
    }
  }

  @Test
  void functionsThatDoMoreThanReckonAreNotCalledFromAFile() throws SQLException {
    Path file =
        file(
            "CREATE VIEW doing AS SELECT load_extension('anything') AS i",
            "PRAGMA user_version = 1");
    try (Handle h = SqliteDialect.open(file)) {
      assertThatThrownBy(() -> count(h, "doing"))
          .isInstanceOf(JdbiException.class)
          .hasMessageContaining("load_extension");
    }
  }

  private static int count(Handle h, String from) {
    return h.createQuery("SELECT COUNT(*) FROM <from>")
        .define("from", from)
        .mapTo(Integer.class)
        .one();
  }
}
