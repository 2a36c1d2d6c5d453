package nocking.book;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.PracticeResult;
import nocking.channel.QuantityKind;
import nocking.channel.SensorCard;
import nocking.parts.StockPart;
import nocking.points.RawUnit;
import nocking.prior.FaultKind;
import nocking.prior.PriorWeights;
import nocking.sensor.Sensor;
import nocking.table.ReceiverShape;
import nocking.table.TableSpec;
import nocking.wiring.Meter;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The book keeps everything, and notices when someone else changed it. */
class BookFileTest {
  private static final Clock NOON =
      Clock.fixed(Instant.parse("2026-04-01T12:00:00Z"), ZoneOffset.UTC);

  @TempDir Path folder;

  private BookFile open() {
    return BookFile.open(folder.resolve("b.nocking"), NOON);
  }

  private static Channel channel(String id, String tag) {
    return Channel.blank(id, tag);
  }

  @Test
  void channelsAndTheirOrderComeBack() {
    Book book = new Book(List.of(channel("1", "B"), channel("2", "A"), channel("3", "C")));
    try (BookFile b = open()) {
      b.saveAll(book.channels(), "three");
      Book after =
          new Book(List.of(channel("3", "C"), channel("1", "B"), channel("2", "A"))).without("1");
      b.save(book, after, "C first, B out");
    }
    try (BookFile b = open()) {
      assertThat(b.read().channels()).extracting(Channel::tag).containsExactly("C", "A");
      assertThat(b.problems()).isEmpty();
    }
  }

  /** A channel of tomorrow's version stays in the file, and the others are there. */
  @Test
  void aChannelThatCannotBeReadKeepsNoOtherFromBeingRead() throws SQLException {
    Book book = new Book(List.of(channel("1", "A"), channel("2", "B"), channel("3", "C")));
    try (BookFile b = open()) {
      b.saveAll(book.channels(), "three");
    }
    String odd;
    try (var c = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("b.nocking"));
        var s = c.createStatement()) {
      s.execute(
          "UPDATE channel SET document = replace(document, '\"notes\"', '\"margin\"') WHERE id = '2'");
      odd = s.executeQuery("SELECT document FROM channel WHERE id = '2'").getString(1);
    }
    try (BookFile b = open()) {
      assertThat(b.read().channels()).extracting(Channel::tag).containsExactly("A", "C");
      assertThat(b.setAside()).hasSize(1);
      assertThat(b.setAside().getFirst())
          .startsWith("The channel B cannot be read and is left in the file as it is")
          .contains("'margin' is not known here");
      b.saveAll(List.of(channel("1", "A2")), "an edit");
      assertThat(b.read().channels()).extracting(Channel::tag).containsExactly("A2", "C");
    }
    try (var c = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("b.nocking"));
        var s = c.createStatement()) {
      assertThat(s.executeQuery("SELECT document FROM channel WHERE id = '2'").getString(1))
          .isEqualTo(odd);
    }
  }

  @Test
  void revisionsAreNumberedAndKeepTheirState() {
    Channel first = channel("1", "IN-T2");
    Channel later = first.define(d -> d.withName("later"));
    try (BookFile b = open()) {
      b.save(first, "new");
      assertThat(b.nameRevision(first, "as found").number()).isEqualTo(1);
      b.save(later, "name");
      assertThat(b.nameRevision(later, "as left").number()).isEqualTo(2);
      List<Revision> revisions = b.revisions("1");
      assertThat(revisions).extracting(Revision::name).containsExactly("as left", "as found");
      assertThat(revisions.getLast().channel()).contains(first);
      assertThat(revisions.getFirst().madeAt()).isEqualTo(NOON.instant());
      assertThat(b.log("1", 10))
          .extracting(LogEntry::kind)
          .containsExactly("revision", "edit", "revision", "edit");
    }
  }

  private void tamper(String sql) throws SQLException {
    try (var c = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("b.nocking"))) {
      c.createStatement().executeUpdate(sql);
    }
  }

  private List<String> problemsAfter(String sql) throws SQLException {
    try (BookFile b = open()) {
      Channel c = channel("1", "IN-T2");
      b.save(c, "one");
      b.save(c.define(d -> d.withName("two")), "two");
      b.nameRevision(c, "first");
      assertThat(b.problems()).isEmpty();
    }
    tamper(sql);
    try (BookFile b = open()) {
      return b.problems();
    }
  }

  @Test
  void changedDocumentShows() throws SQLException {
    assertThat(problemsAfter("UPDATE channel SET document = replace(document, 'two', 'owt')"))
        .containsExactly("channel IN-T2 was changed outside the log");
  }

  @Test
  void changedRevisionShows() throws SQLException {
    assertThat(problemsAfter("UPDATE revision SET name = 'forged'"))
        .containsExactly("revision 1 \"forged\" was changed");
  }

  @Test
  void changedAndMissingLogLinesShow() throws SQLException {
    assertThat(problemsAfter("UPDATE log SET text = 'forged' WHERE number = 1"))
        .containsExactly("log: line 1 does not follow from the line before");
    Path file = folder.resolve("b.nocking");
    assertThat(file.toFile().delete()).isTrue();
    assertThat(problemsAfter("DELETE FROM log WHERE number = 2"))
        .contains("log: line 2 is missing", "log: line 3 does not follow from the line before");
  }

  @Test
  void secondWindowIsToldAndMayOnlyRead() {
    try (BookFile first = open();
        BookFile second = open()) {
      first.save(channel("1", "A"), "one");
      assertThat(second.readOnlyBecause()).isEqualTo("another window has it open");
      assertThat(second.read().channels()).hasSize(1);
      assertThatThrownBy(() -> second.save(channel("2", "B"), "two"))
          .isInstanceOf(BookException.class)
          .hasMessageContaining("open read-only: another window has it open");
    }
    try (BookFile again = open()) {
      assertThat(again.writable()).isTrue();
    }
  }

  @Test
  void foreignFilesAreLeftAsTheyAre() throws IOException {
    Path text = folder.resolve("letter.nocking");
    Files.writeString(text, "Dear book,");
    assertThatThrownBy(() -> BookFile.open(text, NOON))
        .isInstanceOf(BookException.class)
        .hasMessageContaining("does not begin like a database file");
    assertThat(text).hasContent("Dear book,");
    Path empty = Files.createFile(folder.resolve("empty.nocking"));
    assertThatThrownBy(() -> BookFile.open(empty, NOON)).isInstanceOf(BookException.class);
    assertThatThrownBy(() -> BookFile.openToRead(folder, NOON)).hasMessageContaining("is a folder");
  }

  @Test
  void newerBookOpensReadOnly() throws SQLException {
    try (BookFile b = open()) {
      b.save(channel("1", "A"), "one");
    }
    tamper("PRAGMA user_version = 99");
    try (BookFile b = open()) {
      assertThat(b.readOnlyBecause()).startsWith("a newer Nocking wrote it (book version 99");
      assertThat(b.read().channels()).hasSize(1);
    }
  }

  @Test
  void copyIsCompleteAndNeverOverwrites() {
    Path copy = folder.resolve("copy.nocking");
    try (BookFile b = open()) {
      b.save(channel("1", "A"), "one");
      b.copyTo(copy);
      assertThatThrownBy(() -> b.copyTo(copy)).hasMessageContaining("exists already");
    }
    try (BookFile b = BookFile.openToRead(copy, NOON)) {
      assertThat(b.read().channels()).hasSize(1);
      assertThat(b.problems()).isEmpty();
    }
  }

  private static SensorCard card(int revision) {
    return new SensorCard(
        "k",
        "Manifold",
        "datasheet",
        "2026-03-01",
        QuantityKind.PRESSURE,
        "kPa",
        Sensor.models().getFirst(),
        revision);
  }

  private static final List<StockPart> DRAWER =
      List.of(new StockPart("top", 4700, 1, 0.25, 250, 3), new StockPart("", 10e3, 5, 0, 0, 1));

  @Test
  void cardsAndDrawerComeBackAndAreWatched() throws SQLException {
    try (BookFile b = open()) {
      b.saveCards(List.of(card(1)), "card");
      b.saveStock(DRAWER, "drawer");
      b.saveCards(List.of(card(2)), "card changed");
    }
    try (BookFile b = open()) {
      assertThat(b.read().cards()).containsExactly(card(2));
      assertThat(b.read().stock()).isEqualTo(DRAWER);
      assertThat(b.problems()).isEmpty();
    }
    tamper("UPDATE stock SET quantity = 99 WHERE place = 0");
    tamper("UPDATE card SET document = replace(document, 'Manifold', 'Other')");
    try (BookFile b = open()) {
      assertThat(b.problems())
          .containsExactlyInAnyOrder(
              "the sensor cards were changed outside the log",
              "the drawer was changed outside the log");
    }
  }

  /** Receivers' shapes come back, one that cannot be read stays, and a change outside is seen. */
  @Test
  void shapesComeBackAndAreWatched() throws SQLException {
    var spec = new TableSpec(12, RawUnit.COUNTS, true, 0, 1);
    var gate = new ReceiverShape("Gate", spec);
    var pump = new ReceiverShape("Pump", spec.withCells(20));
    try (BookFile b = open()) {
      b.saveShapes(List.of(gate, pump), "shapes");
    }
    try (BookFile b = open()) {
      assertThat(b.read().shapes()).containsExactly(gate, pump);
      assertThat(b.problems()).isEmpty();
    }
    tamper("UPDATE receiver_shape SET document = replace(document, '20', '\"many\"')");
    try (BookFile b = open()) {
      assertThat(b.read().shapes()).containsExactly(gate);
      assertThat(b.setAside()).hasSize(1).first().asString().contains("shape of a receiver Pump");
      assertThat(b.problems()).contains("the receivers' shapes were changed outside the log");
      b.saveShapes(List.of(gate), "as it is");
    }
    try (BookFile b = open()) {
      assertThat(b.read().shapes()).containsExactly(gate);
      assertThat(b.setAside()).as("what cannot be read stays").hasSize(1);
    }
  }

  /** A book of the first version is brought to the present one, with everything that was in it. */
  @Test
  void bookOfTheFirstVersionIsMigrated() throws SQLException {
    Channel c = channel("1", "IN-T2");
    try (BookFile b = open()) {
      b.save(c, "new");
    }
    tamper("DROP TABLE card");
    tamper("DROP TABLE stock");
    tamper("DROP TABLE practice");
    tamper("DROP TABLE weighing");
    for (String later : List.of("instrument", "run", "reading", "run_entry", "receiver_shape")) {
      tamper("DROP TABLE " + later);
    }
    tamper("DELETE FROM flyway_schema_history WHERE version > '1'");
    tamper("PRAGMA user_version = 1");
    try (BookFile b = BookFile.openToRead(folder.resolve("b.nocking"), NOON)) {
      assertThat(b.read().stock()).isEmpty();
      assertThat(b.practice()).isEmpty();
      assertThat(b.read().priorWeights()).isEqualTo(PriorWeights.USUAL);
    }
    try (BookFile b = open()) {
      assertThat(b.read().channels()).containsExactly(c);
      b.saveStock(DRAWER, "drawer");
      assertThat(b.problems()).isEmpty();
    }
  }

  /** Results of practice are added one behind the other, and stay. */
  @Test
  void practiceIsKeptInItsOrder() throws SQLException {
    var first =
        new PracticeResult(
            "Wren",
            "SG-P1",
            "easy",
            "supply wire open",
            "signal wire open",
            false,
            3,
            2,
            "2026-04-01");
    var second =
        new PracticeResult(
            "Wren",
            "SG-P1",
            "easy",
            "signal wire open",
            "signal wire open",
            true,
            4,
            2,
            "2026-04-01",
            Optional.of(new PracticeResult.Effort(95, 3, 1)));
    assertThat(second.effort().orElseThrow().needless()).isEqualTo(2);
    try (BookFile b = open()) {
      b.addPractice(first);
      b.addPractice(second);
    }
    try (BookFile b = open()) {
      assertThat(b.practice()).containsExactly(first, second);
      assertThat(b.practice()).extracting(PracticeResult::score).containsExactly(0, 50);
      assertThat(b.problems()).isEmpty();
    }
    tamper("UPDATE practice SET seconds = 9 WHERE place = 2");
    try (BookFile b = open()) {
      assertThat(b.problems()).containsExactly("results of practice were changed outside the log");
    }
    tamper("UPDATE practice SET seconds = 95 WHERE place = 2");
    try (BookFile b = open()) {
      assertThat(b.problems()).isEmpty();
    }
    tamper("UPDATE practice SET correct = 1 WHERE place = 1");
    try (BookFile b = open()) {
      assertThat(b.problems()).containsExactly("results of practice were changed outside the log");
    }
  }

  /** The meter and the weights of faults belong to the bench, and are still there tomorrow. */
  @Test
  void whatTheBenchWeighsByIsKeptAndWatched() throws SQLException {
    PriorWeights w =
        PriorWeights.USUAL
            .withMeter(new Meter(0.2, 3, 4000, 1e6))
            .withWeight(FaultKind.LEAK_TO_GROUND, 12.5);
    try (BookFile b = open()) {
      assertThat(b.read().priorWeights()).isEqualTo(PriorWeights.USUAL);
      b.saveWeighing(PriorWeights.USUAL.withWeight(FaultKind.SWAPPED, 0), "weights");
      b.saveWeighing(w, "meter and weights");
    }
    try (BookFile b = open()) {
      assertThat(b.read().priorWeights()).isEqualTo(w);
      assertThat(b.problems()).isEmpty();
    }
    tamper("UPDATE weighing SET document = replace(document, '12.5', '1.5')");
    assertWeighingIsSuspect();
    tamper("DELETE FROM weighing");
    assertWeighingIsSuspect();
  }

  private void assertWeighingIsSuspect() {
    try (BookFile b = open()) {
      assertThat(b.problems())
          .containsExactly("the meter or the weights of faults were changed outside the log");
    }
  }
}
