package nocking.book.internal;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationVersion;
import org.sqlite.SQLiteDataSource;

/** Brings a book's tables to the present version. Flyway loads slowly, so ask the version first. */
public final class Migrations {
  private static final String FOLDER = "nocking/book/migration";

  /** One script a version, from 1. */
  private static final List<String> SCRIPTS =
      List.of(
          "V1__bench_book.sql",
          "V2__cards_and_stock.sql",
          "V3__practice.sql",
          "V4__practice_time.sql",
          "V5__instruments_and_runs.sql",
          "V6__receiver_shapes.sql");

  /** Version that this program writes. */
  public static final int CURRENT = SCRIPTS.size();

  private Migrations() {}

  /**
   * @param version what the file says of itself; where the history of its tables is missing, this
   *     is gone by. 0 for a new file
   */
  public static void run(Path file, int version) {
    var source = new SQLiteDataSource();
    source.setUrl(SqliteDialect.url(file));
    Flyway.configure(Migrations.class.getClassLoader())
        .loggers("slf4j")
        .dataSource(source)
        .locations("classpath:" + FOLDER)
        .baselineOnMigrate(version > 0)
        .baselineVersion(MigrationVersion.fromVersion(String.valueOf(Math.max(version, 1))))
        .load()
        .migrate();
  }

  /** What makes the tables of a version out of those of the one before. */
  static String script(int version) {
    String name = "/" + FOLDER + "/" + SCRIPTS.get(version - 1);
    try (var in = Migrations.class.getResourceAsStream(name)) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
