package nocking.app.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Clock;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import nocking.book.BookFile;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.demo.Hatchery;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** One writing thread between the desk and the disk; when the disk refuses, nothing is lost. */
class BookStoreTest {
  @TempDir Path folder;
  private final AtomicInteger news = new AtomicInteger();

  private Path file() {
    return folder.resolve("b.nocking");
  }

  private BookStore open() {
    return new BookStore(
        BookFile.open(file(), Clock.systemUTC()),
        folder.resolve("rescue"),
        Clock.systemUTC(),
        news::incrementAndGet);
  }

  private Book onDisk() {
    try (BookFile b = BookFile.openToRead(file(), Clock.systemUTC())) {
      assertThat(b.problems()).isEmpty();
      return b.read();
    }
  }

  @Test
  void differencesAreWrittenInOrder() {
    Book first = Hatchery.book(1);
    Book second = first.without("hatchery-gv-p1").with(Channel.blank("n", "N-1"));
    try (BookStore store = open()) {
      store.save(Book.EMPTY, first, "first");
      store.save(first, second, "second");
      store.flush();
      assertThat(onDisk()).isEqualTo(second);
      store.save(second, first, "undo");
      store.flush();
      assertThat(onDisk()).as("undo of a removal puts the order back").isEqualTo(first);
      assertThat(store.state()).startsWith("saved ");
      assertThat(news.get()).isEqualTo(3);
    }
  }

  @Test
  void revisionsComeAfterTheEditsBeforeThem() {
    Channel c = Channel.blank("n", "N-1");
    try (BookStore store = open()) {
      store.save(Book.EMPTY, new Book(List.of(c)), "new");
      store.nameRevision(c, "first");
      store.note("unlock", "n", "sensor replaced");
      store.flush();
      assertThat(store.log("n"))
          .extracting(e -> e.kind())
          .containsExactly("unlock", "revision", "edit");
      assertThat(store.revisions("n")).hasSize(1);
    }
  }

  @Test
  void refusedWriteLeavesARescueCopyAndIsTriedAgain() throws SQLException, IOException {
    Book book = Hatchery.book(1);
    try (BookStore store = open()) {
      sql("ALTER TABLE channel RENAME TO hidden");
      store.save(Book.EMPTY, book, "import");
      store.flush();
      assertThat(store.failed()).isTrue();
      Path rescue = folder.resolve("rescue").resolve("b-rescue.json");
      assertThat(store.state())
          .contains("cannot be written")
          .contains("the work is kept in memory and in " + rescue);
      assertThat(ChannelJson.readAny(Files.readString(rescue), "rescue")).isEqualTo(book);

      sql("ALTER TABLE hidden RENAME TO channel");
      Book next = book.with(Channel.blank("n", "N-1"));
      store.save(book, next, "new channel");
      store.flush();
      assertThat(store.failed()).isFalse();
    }
    assertThat(onDisk().channels())
        .as("the next edit brings everything that was missing")
        .hasSize(book.channels().size() + 1);
  }

  /** What nobody thought of is no less a failure, and takes nothing sound with it. */
  @Test
  void aChannelThatCannotBeWrittenIsSaidAndTakesNoOtherWithIt() throws IOException {
    Channel sound = Channel.blank("s", "S-1");
    Channel odd = Channel.blank("o", "O-1");
    // A fault of the program: no document can be made of it.
    Channel broken =
        new Channel(
            odd.id(),
            odd.design(),
            null,
            odd.calibration(),
            odd.receiver(),
            odd.acceptance(),
            odd.journal());
    Book before = new Book(List.of(odd));
    Book after = new Book(List.of(broken, sound));
    try (BookStore store = open()) {
      store.save(Book.EMPTY, before, "made");
      store.save(before, after, "both at once");
      store.flush();
      assertThat(store.failed()).isTrue();
      assertThat(store.state())
          .contains("went wrong while saving", "b-rescue.json")
          .contains("all but O-1 is saved");
      assertThat(onDisk().channels()).containsExactly(odd, sound);
      Path rescue = folder.resolve("rescue").resolve("b-rescue.json");
      assertThat(ChannelJson.readAny(Files.readString(rescue), "rescue").channels())
          .containsExactly(sound);
      store.rest();
      assertThat(store.failed()).as("tried again, and it still is not written").isTrue();
      Book mended = after.with(odd.define(d -> d.withName("mended")));
      store.save(after, mended, "mended");
      store.flush();
      assertThat(store.failed()).isFalse();
    }
    assertThat(onDisk().byTag("O-1").orElseThrow().definition().name()).isEqualTo("mended");
  }

  /** Nobody has to make an edit for what is missing to be written once the disk takes it again. */
  @Test
  void whatCouldNotBeWrittenIsTriedAgainWithoutAnEdit() throws SQLException {
    Book book = Hatchery.book(1);
    try (BookStore store = open()) {
      sql("ALTER TABLE channel RENAME TO hidden");
      store.save(Book.EMPTY, book, "import");
      store.note("unlock", "n", "said while the disk refused");
      store.flush();
      assertThat(store.failed()).isTrue();
      sql("ALTER TABLE hidden RENAME TO channel");
      store.rest();
      assertThat(store.failed()).isFalse();
      assertThat(store.state()).startsWith("saved ");
    }
    assertThat(onDisk()).isEqualTo(book);
  }

  @Test
  void aBookDeletedAtRestIsNoticedAndRescued() throws Exception {
    Book book = Hatchery.book(1);
    var noticed = new CountDownLatch(1);
    var opened = new BookStore[1];
    opened[0] =
        new BookStore(
            BookFile.open(file(), Clock.systemUTC()),
            folder.resolve("rescue"),
            Clock.systemUTC(),
            () -> {
              if (opened[0].failed()) noticed.countDown();
            });
    try (BookStore store = opened[0]) {
      store.save(Book.EMPTY, book, "import");
      store.nameRevision(book.channels().getFirst(), "as left");
      store.flush();
      Files.delete(file());
      assertThat(noticed.await(30, TimeUnit.SECONDS)).as("noticed without an edit").isTrue();
      Path rescue = folder.resolve("rescue");
      assertThat(store.state())
          .contains("was deleted or moved away while it was open")
          .contains("the work is kept in memory and in " + rescue.resolve("b-rescue.json"))
          .contains("the revisions and the log in b-rescue.nocking");
      Book next = book.without("hatchery-gv-p1");
      store.save(book, next, "removed");
      store.flush();
      assertThat(store.failed()).isTrue();
      assertThat(ChannelJson.readAny(Files.readString(rescue.resolve("b-rescue.json")), "rescue"))
          .as("later edits are rescued too")
          .isEqualTo(next);
      try (BookFile b =
          BookFile.openToRead(rescue.resolve("b-rescue.nocking"), Clock.systemUTC())) {
        assertThat(b.problems()).isEmpty();
        assertThat(b.revisions(book.channels().getFirst().id())).hasSize(1);
      }
    }
    assertThat(file()).as("nothing is written where the book was").doesNotExist();
  }

  @Test
  void anEarlierRescueCopyIsNeverWrittenOver() throws IOException, SQLException {
    Path earlier = Files.createDirectories(folder.resolve("rescue")).resolve("b-rescue.json");
    Files.writeString(earlier, "work of last week");
    try (BookStore store = open()) {
      sql("ALTER TABLE channel RENAME TO hidden");
      store.save(Book.EMPTY, Hatchery.book(1), "import");
      store.flush();
      assertThat(store.state()).contains("b-rescue-2.json");
    }
    assertThat(earlier).hasContent("work of last week");
  }

  @Test
  void aBookAtRestIsCompleteInItsMainFile() throws Exception {
    try (BookStore store = open()) {
      store.save(Book.EMPTY, Hatchery.book(1), "import");
      store.flush();
      store.rest();
      Path copy = Files.copy(file(), folder.resolve("copy.nocking"));
      try (BookFile b = BookFile.openToRead(copy, Clock.systemUTC())) {
        assertThat(b.read()).isEqualTo(Hatchery.book(1));
      }
    }
  }

  private void sql(String statement) throws SQLException {
    try (var c = DriverManager.getConnection("jdbc:sqlite:" + file())) {
      c.createStatement().executeUpdate(statement);
    }
  }
}
