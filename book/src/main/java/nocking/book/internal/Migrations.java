package nocking.book.internal;

import java.nio.file.Path;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationVersion;
import org.sqlite.SQLiteDataSource;

/** Brings a book's tables to the present version. Flyway loads slowly, so ask the version first. */
public final class Migrations {
  /** Version that this program writes. */
  public static final int CURRENT = 6;

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
        .locations("classpath:nocking/book/migration")
        .baselineOnMigrate(version > 0)
        .baselineVersion(MigrationVersion.fromVersion(String.valueOf(Math.max(version, 1))))
        .load()
        .migrate();
  }
}
