package nocking.book.internal;

import java.nio.file.Path;
import org.flywaydb.core.Flyway;
import org.sqlite.SQLiteDataSource;

/** Brings a book's tables to the present version. Flyway loads slowly, so ask the version first. */
public final class Migrations {
  /** Version that this program writes. */
  public static final int CURRENT = 3;

  private Migrations() {}

  public static void run(Path file) {
    var source = new SQLiteDataSource();
    source.setUrl("jdbc:sqlite:" + file.toAbsolutePath());
    Flyway.configure(Migrations.class.getClassLoader())
        .loggers("slf4j")
        .dataSource(source)
        .locations("classpath:nocking/book/migration")
        .load()
        .migrate();
  }
}
