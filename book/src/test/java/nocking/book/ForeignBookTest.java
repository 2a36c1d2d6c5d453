package nocking.book;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Clock;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import nocking.book.BookException.Cause;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.parts.StockPart;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Files that call themselves bench books, and what they bring along. */
class ForeignBookTest {
  private static final Clock CLOCK = Clock.systemUTC();

  /** A view that never ends. */
  private static final String ENDLESS =
      " AS WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n) SELECT i AS id, i AS"
          + " place, 'T' AS tag, '{}' AS document, 1 AS number, '' AS name, '' AS made_at, '' AS"
          + " hash, '' AS channel_id, '' AS kind, '' AS text, '' AS document_hash FROM n";

  private static byte[] sound;

  @TempDir Path folder;

  /** A sound book; it is made once, for every commit of it goes through to the disk. */
  private Path book() {
    Path file = folder.resolve("b.nocking");
    try {
      if (sound == null) {
        made(file);
        sound = Files.readAllBytes(file);
      }
      return Files.write(file, sound);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static void made(Path file) {
    try (BookFile b = BookFile.open(file, CLOCK)) {
      for (int i = 1; i <= 3; i++) {
        Channel c = Channel.blank("c" + i, "T-" + i);
        b.save(c, "made");
        b.nameRevision(c, "first");
      }
    }
  }

  private static void sql(Path file, String... statements) throws SQLException {
    try (var c = DriverManager.getConnection("jdbc:sqlite:" + file);
        var s = c.createStatement()) {
      for (String one : statements) s.execute(one);
    }
  }

  /** No bench books: what is done to a sound one, and what is said of it then. */
  static Stream<Map.Entry<String, String>> broken() {
    var cases = new LinkedHashMap<String, String>();
    for (String table : List.of("channel", "revision", "log", "card", "run", "receiver_shape")) {
      cases.put("DROP TABLE " + table, "it has no table " + table);
      cases.put("ALTER TABLE %s RENAME TO other".formatted(table), "it has no table " + table);
    }
    for (String table : List.of("channel", "revision", "log")) {
      cases.put(
          "DROP TABLE %s; CREATE VIEW %s%s".formatted(table, table, ENDLESS),
          "its table %s is a view".formatted(table));
    }
    cases.put(
        "ALTER TABLE channel ADD COLUMN more TEXT DEFAULT 'x'",
        "its table channel is not one of a bench book");
    cases.put(
        "ALTER TABLE channel RENAME COLUMN tag TO label",
        "its table channel is not one of a bench book");
    cases.put(
        "DROP TABLE card; CREATE TABLE card (id TEXT, place INT AS (abs(-9223372036854775808)), name"
            + " TEXT, document TEXT)",
        "its table card is not one of a bench book");
    cases.put("PRAGMA user_version = 0", "it is of version 0");
    cases.put("PRAGMA user_version = -3", "it is of version -3");
    cases.put("PRAGMA application_id = 1", "not a bench book of Nocking");
    cases.put(
        "PRAGMA writable_schema = ON; UPDATE sqlite_schema SET sql = 'CREATE TABLE channel (id' WHERE"
            + " name = 'channel'",
        "is damaged or not a bench book");
    cases.put(
        "PRAGMA writable_schema = ON; UPDATE sqlite_schema SET rootpage = 99999 WHERE name ="
            + " 'channel'",
        "is damaged or not a bench book");
    return cases.entrySet().stream();
  }

  @ParameterizedTest
  @MethodSource("broken")
  void whatIsNoBookIsSaidInOneSentence(Map.Entry<String, String> done)
      throws SQLException, IOException {
    Path file = book();
    sql(file, done.getKey().split(";"));
    byte[] before = Files.readAllBytes(file);
    for (boolean write : new boolean[] {true, false}) {
      assertThatThrownBy(
              () -> {
                try (BookFile b = write ? BookFile.open(file, CLOCK) : openToRead(file)) {
                  b.read();
                }
              })
          .isInstanceOf(BookException.class)
          .hasMessageContaining(done.getValue())
          .satisfies(e -> assertThat(((BookException) e).kind()).isEqualTo(Cause.BAD_INPUT));
    }
    assertThat(Files.readAllBytes(file)).as("nothing was done to it").isEqualTo(before);
  }

  /** A log beside it is looked at on a copy, which brings along the same things. */
  @Test
  void whatIsNoBookIsNoneWithALogBesideIt() throws SQLException, IOException {
    for (String done : List.of("DROP TABLE log; CREATE VIEW log" + ENDLESS, "DROP TABLE log")) {
      Path file = book();
      sql(file, done.split(";"));
      Path log = Files.write(folder.resolve("b.nocking-wal"), new byte[8192]);
      assertThatThrownBy(() -> BookFile.open(file, CLOCK).close())
          .isInstanceOf(BookException.class);
      assertThatThrownBy(() -> openToRead(file).close()).isInstanceOf(BookException.class);
      Files.deleteIfExists(log);
      Files.delete(file);
    }
    Path huge = book();
    try (var f = new RandomAccessFile(huge.toFile(), "rw")) {
      f.setLength(1L << 42);
    }
    Files.write(folder.resolve("b.nocking-wal"), new byte[8192]);
    assertThatThrownBy(() -> openToRead(huge).close())
        .hasMessageContaining("not enough room for a copy of both");
  }

  private static BookFile openToRead(Path file) {
    return BookFile.openToRead(file, CLOCK);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "CREATE TRIGGER tidy AFTER INSERT ON log BEGIN DELETE FROM revision; END",
        "CREATE TRIGGER tidy INSTEAD OF INSERT ON seen BEGIN DELETE FROM revision; END",
        "CREATE TABLE tidy (x)",
        "CREATE INDEX tidy ON channel (tag)",
        "CREATE VIEW tidy" + ENDLESS
      })
  void aBookWithForeignThingsIsReadAndNeverWritten(String foreign) throws SQLException {
    Path file = book();
    if (foreign.contains("seen")) sql(file, "CREATE VIEW seen AS SELECT 1 AS x");
    sql(file, foreign);
    try (BookFile b = BookFile.open(file, CLOCK)) {
      assertThat(b.writable()).isFalse();
      assertThat(b.readOnlyBecause()).contains("not Nocking's").containsAnyOf("'tidy'", "'seen'");
      assertThat(b.read().channels()).hasSize(3);
      assertThatThrownBy(() -> b.save(Channel.blank("c4", "T-4"), "more"))
          .isInstanceOf(BookException.class);
      assertThat(b.revisions("c1")).hasSize(1);
      assertThat(b.problems()).anyMatch(p -> p.contains("'tidy' is not Nocking's"));
    }
  }

  /** What SQLite's own tools leave in a file is nobody's trick. */
  @Test
  void statisticsOfSqliteAreNotForeign() throws SQLException {
    Path file = book();
    sql(file, "ANALYZE", "VACUUM");
    try (BookFile b = BookFile.open(file, CLOCK)) {
      assertThat(b.readOnlyBecause()).isEmpty();
      assertThat(b.problems()).isEmpty();
    }
  }

  /** A migration that was cut off between its tables and its stamp goes on. */
  @Test
  void tablesThatAreFurtherThanTheirVersionAreNotForeign() throws SQLException {
    Path file = book();
    sql(file, "PRAGMA user_version = 5");
    try (BookFile b = BookFile.open(file, CLOCK)) {
      assertThat(b.readOnlyBecause()).isEmpty();
      b.save(Channel.blank("c4", "T-4"), "more");
      assertThat(b.problems()).isEmpty();
    }
  }

  /** A later version's tables are not known; still they have to be tables. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "CREATE VIEW channel" + ENDLESS,
        "CREATE VIRTUAL TABLE channel USING fts5(id, tag, place, document)"
      })
  void aLaterBookHasTablesToo(String instead) throws SQLException {
    Path file = book();
    sql(file, "PRAGMA user_version = 999", "DROP TABLE channel", instead);
    assertThatThrownBy(() -> BookFile.open(file, CLOCK).close())
        .hasMessageContaining("its table channel");
  }

  @Test
  void linksInThePlaceOfLogOrLockAreNotFollowed() throws IOException {
    Path file = book();
    Path own = Files.writeString(folder.resolve("own.txt"), "a person's");
    for (String end : List.of("-wal", "-shm", "-journal")) {
      Path link = Files.createSymbolicLink(folder.resolve("b.nocking" + end), own);
      assertThatThrownBy(() -> BookFile.open(file, CLOCK).close())
          .hasMessageContaining("b.nocking%s beside it is no file".formatted(end))
          .hasMessageContaining("a link is not followed");
      assertThatThrownBy(() -> openToRead(file).close()).hasMessageContaining("is not followed");
      Files.delete(link);
    }
    Path lock = folder.resolve(".b.nocking.lock");
    Files.delete(lock);
    Path elsewhere = folder.resolve("elsewhere");
    Files.createSymbolicLink(lock, elsewhere);
    try (BookFile b = BookFile.open(file, CLOCK)) {
      assertThat(b.readOnlyBecause()).contains(".b.nocking.lock is no file");
    }
    assertThat(elsewhere).doesNotExist();
    assertThat(own).hasContent("a person's");
  }

  @Test
  void aBookBehindALinkHasItsLogBesideTheBook() throws IOException {
    Path file = book();
    Path other = Files.createDirectory(folder.resolve("desk"));
    Path link = Files.createSymbolicLink(other.resolve("link.nocking"), file);
    Path decoy = Files.writeString(other.resolve("link.nocking-wal"), "x".repeat(5000));
    try (BookFile b = BookFile.open(link, CLOCK)) {
      assertThat(b.writable()).isTrue();
      b.save(Channel.blank("c4", "T-4"), "more");
    }
    assertThat(decoy).hasContent("x".repeat(5000));
    try (BookFile b = openToRead(file)) {
      assertThat(b.read().channels()).hasSize(4);
    }
  }

  @Test
  void filesWithoutAnEndAreNoBooks() throws IOException {
    for (Path p : List.of(Path.of("/dev/zero"), Path.of("/dev/null"))) {
      if (!Files.exists(p)) continue;
      assertThatThrownBy(() -> openToRead(p)).hasMessageContaining("is no file");
      assertThatThrownBy(() -> BookFile.open(p, CLOCK)).hasMessageContaining("is no file");
    }
    Path huge = folder.resolve("huge.nocking");
    try (var f = new RandomAccessFile(huge.toFile(), "rw")) {
      f.setLength(1L << 40);
    }
    assertThatThrownBy(() -> openToRead(huge)).isInstanceOf(BookException.class);
    try (var in = Files.newInputStream(book());
        var f = new RandomAccessFile(huge.toFile(), "rw")) {
      f.write(in.readAllBytes());
    }
    // Pages that the book does not know of are nothing to it.
    try (BookFile b = openToRead(huge)) {
      assertThat(b.read().channels()).hasSize(3);
    }
  }

  @Test
  void whatIsTakenOutOrPutInAnotherOrderBesideTheLogIsSeen() throws SQLException {
    var done =
        Map.of(
            "DELETE FROM revision WHERE channel_id = 'c2'", "revision 1 first was taken out",
            "DELETE FROM channel WHERE id = 'c2'", "key c2 was taken out outside the log",
            "UPDATE channel SET place = 9 WHERE id = 'c1'", "order of the channels was changed");
    for (var d : done.entrySet()) {
      Path file = book();
      sql(file, d.getKey());
      try (BookFile b = openToRead(file)) {
        assertThat(b.problems()).as(d.getKey()).anyMatch(p -> p.contains(d.getValue()));
      }
      sql(file, "PRAGMA journal_mode = DELETE");
      file.toFile().delete();
    }
  }

  /** An edit is all there or not there at all, the order and the log included. */
  @Test
  void oneEditIsOneTransaction() throws SQLException {
    Path file = book();
    try (BookFile b = BookFile.open(file, CLOCK)) {
      Book before = b.read();
      Book after =
          before
              .without("c1")
              .with(Channel.blank("c4", "T-4"))
              .with(before.channels().get(1).define(d -> d.withName("other")))
              .withStock(List.of(new StockPart(null, 100, 1, 0.25, 200, 3)));
      assertThatThrownBy(() -> b.save(before, after, "all at once"))
          .isInstanceOf(BookException.class);
      assertThat(b.read()).isEqualTo(before);
      assertThat(b.problems()).isEmpty();
      assertThat(b.log("", 20)).noneMatch(l -> l.text().equals("all at once"));
      Book sound = after.withStock(List.of());
      b.save(before, sound, "all at once");
      assertThat(b.read()).isEqualTo(sound);
      assertThat(b.problems()).isEmpty();
    }
  }
}
