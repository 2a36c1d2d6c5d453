package nocking.book;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import nocking.book.BookException.Cause;
import nocking.book.exchange.Output;
import nocking.channel.Channel;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Books in odd places, with odd things beside them, and under the hands of others. */
class OddPlacesTest {
  private static final Clock NOON =
      Clock.fixed(Instant.parse("2026-04-01T12:00:00Z"), ZoneOffset.UTC);

  @TempDir Path folder;

  private BookFile open(Path file) {
    return BookFile.open(file, NOON);
  }

  private Path book(String name, String... tags) {
    Path file = folder.resolve(name);
    try (BookFile b = open(file)) {
      for (String t : tags) b.save(Channel.blank(t, t), "made");
    }
    return file;
  }

  private List<String> tags(Path file) {
    try (BookFile b = BookFile.openToRead(file, NOON)) {
      assertThat(b.problems()).isEmpty();
      return b.read().channels().stream().map(Channel::tag).toList();
    }
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "what?.nocking",
        "a?mode=memory.nocking",
        "100%.nocking",
        "a%20b.nocking",
        "no. #7.nocking",
        "über & ünder's.nocking"
      })
  void aNameMayHoldWhatNamesMayHold(String name) {
    Path file = book(name, "A");
    assertThat(file).exists();
    assertThat(tags(file)).containsExactly("A");
    try (BookFile b = open(file)) {
      b.copyTo(folder.resolve("copy of " + name));
    }
    assertThat(tags(folder.resolve("copy of " + name))).containsExactly("A");
    assertThat(folder)
        .isDirectoryNotContaining("glob:**.new")
        .isDirectoryNotContaining("glob:**.part");
  }

  /** Whatever a person's file beside it is called, it is a person's. */
  @Test
  void nothingBesideABookIsTakenForItsOwn() throws IOException {
    List<Path> mine =
        List.of(".a.nocking.part", ".a.nocking.new", ".copy.nocking.part", "a.nocking.part")
            .stream()
            .map(folder::resolve)
            .toList();
    for (Path p : mine) Files.writeString(p, "a person's");
    Path file = book("a.nocking", "A");
    try (BookFile b = open(file)) {
      b.copyTo(folder.resolve("copy.nocking"));
      assertThatThrownBy(() -> b.copyTo(folder.resolve("copy.nocking")))
          .hasMessageContaining("copy.nocking exists already");
    }
    for (Path p : mine) assertThat(p).hasContent("a person's");
  }

  @Test
  void aCopyMayBeReadByNoMorePeopleThanTheBook() throws IOException {
    Path file = book("a.nocking", "A");
    for (String mode : List.of("rw-------", "rw-r-----", "rw-r--r--")) {
      Files.setPosixFilePermissions(file, PosixFilePermissions.fromString(mode));
      Path copy = folder.resolve(mode + ".nocking");
      try (BookFile b = BookFile.openToRead(file, NOON)) {
        b.copyTo(copy);
      }
      assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(copy)))
          .isEqualTo(mode);
      assertThat(tags(copy)).containsExactly("A");
    }
  }

  @Test
  void whyABookCannotBeMadeIsSaidTruly() throws IOException {
    assertThatThrownBy(() -> open(folder.resolve("x".repeat(400) + ".nocking")))
        .isInstanceOf(BookException.class)
        .hasMessageContaining("its name is too long for this disk");
    assertThatThrownBy(() -> open(folder.resolve("none/b.nocking")))
        .hasMessageContaining("the folder " + folder.resolve("none") + " does not exist");
    Files.writeString(folder.resolve("file"), "x");
    assertThatThrownBy(() -> open(folder.resolve("file/b.nocking")))
        .isInstanceOf(BookException.class)
        .hasMessageContaining("a part of its path is a file and no folder");
  }

  @Test
  void aBookWithoutTheHistoryOfItsTablesIsStillMigrated() throws SQLException {
    Path file = book("old.nocking", "A");
    try (var c = DriverManager.getConnection("jdbc:sqlite:" + file);
        var s = c.createStatement()) {
      s.execute("DROP TABLE practice");
      s.execute("DROP TABLE weighing");
      for (String later : List.of("instrument", "run", "reading", "run_entry", "receiver_shape")) {
        s.execute("DROP TABLE " + later);
      }
      s.execute("DROP TABLE flyway_schema_history");
      s.execute("PRAGMA user_version = 2");
    }
    try (BookFile b = open(file)) {
      assertThat(b.writable()).isTrue();
      assertThat(b.practice()).isEmpty();
      assertThat(b.problems()).isEmpty();
    }
  }

  @Test
  void theLogLeftByACrashIsPutIn() throws IOException {
    Path file = book("a.nocking", "A");
    Path crashed = folder.resolve("crashed.nocking");
    try (BookFile b = open(file)) {
      b.save(Channel.blank("B", "B"), "in the log only");
      Files.copy(file, crashed);
      Files.copy(log(file), log(crashed));
    }
    assertThat(tags(crashed)).containsExactly("A", "B");
  }

  @Test
  void theLogOfAnotherBookIsNeverPutIn() throws IOException {
    Path file = book("a.nocking", "A");
    Path other = folder.resolve("other.nocking");
    try (BookFile b = open(other)) {
      b.save(Channel.blank("X", "X"), "in the log only");
      Files.copy(log(other), log(file));
    }
    byte[] before = Files.readAllBytes(file);
    for (Runnable opening :
        List.<Runnable>of(
            () -> open(file).close(), () -> BookFile.openToRead(file, NOON).close())) {
      assertThatThrownBy(opening::run)
          .isInstanceOf(BookException.class)
          .hasMessageContaining("a.nocking-wal beside ")
          .hasMessageContaining("belongs to another book or to another state of this one")
          .hasMessageContaining("move it away");
    }
    assertThat(Files.readAllBytes(file)).isEqualTo(before);
    assertThat(BookFile.inUse(file)).as("a failed opening holds no lock").isFalse();
    Files.delete(log(file));
    assertThat(tags(file)).containsExactly("A");
  }

  @Test
  void theLogOfALaterStateIsNotPutIntoAnEarlierOne() throws IOException {
    // So many channels that an edit touches few of the pages that hold them.
    Path file =
        book("a.nocking", IntStream.range(0, 200).mapToObj(i -> "C" + i).toArray(String[]::new));
    Path backup = folder.resolve("backup.nocking");
    try (BookFile b = open(file)) {
      b.checkpoint();
      Files.copy(file, backup);
      b.save(Channel.blank("C0", "C0").define(d -> d.withName("later")), "later");
      b.checkpoint();
      b.save(Channel.blank("C199", "C199").define(d -> d.withName("last")), "in the log only");
      Files.copy(log(file), log(backup));
    }
    assertThatThrownBy(() -> tags(backup)).hasMessageContaining("move it away");
  }

  private static Path log(Path file) {
    return file.resolveSibling(file.getFileName() + "-wal");
  }

  @Test
  void troubleOfTheMachineIsNotCalledDamage() throws IOException {
    Path file = book("a.nocking", "A");
    Files.createDirectory(log(file));
    assertThatThrownBy(() -> open(file))
        .isInstanceOfSatisfying(
            BookException.class, e -> assertThat(e.kind()).isEqualTo(Cause.OUTSIDE))
        .hasMessageContaining("cannot be opened: a.nocking-wal beside it is no file")
        .hasMessageNotContaining("damaged");
    assertThat(BookFile.inUse(file)).isFalse();
  }

  @Test
  void damageIsCalledDamageAndTheLockIsFree() throws IOException {
    Path file = book("a.nocking", "A");
    byte[] bytes = Files.readAllBytes(file);
    Arrays.fill(bytes, 100, 4096, (byte) 0x5a);
    Files.write(file, bytes);
    assertThatThrownBy(() -> open(file))
        .isInstanceOfSatisfying(
            BookException.class, e -> assertThat(e.kind()).isEqualTo(Cause.BAD_INPUT))
        .hasMessageContaining("is damaged or not a bench book");
    assertThat(BookFile.inUse(file)).isFalse();
  }

  @Test
  void theMainFileAloneIsACompleteCopyAfterARest() throws IOException {
    Path file = folder.resolve("a.nocking");
    Path copy = folder.resolve("copy.nocking");
    try (BookFile b = open(file)) {
      b.save(Channel.blank("A", "A"), "edit");
      // One who reads meanwhile is not waited for.
      try (BookFile reader = BookFile.openToRead(file, NOON)) {
        reader.read();
        b.checkpoint();
      }
      b.checkpoint();
      assertThat(log(file)).as("nothing that could be taken for another's").isEmptyFile();
      Files.copy(file, copy);
      assertThat(tags(copy)).containsExactly("A");
      assertThat(b.happened()).isEqualTo(Happening.NOTHING);
      b.save(Channel.blank("B", "B"), "goes on");
    }
    assertThat(log(file)).as("closing leaves no log").doesNotExist();
    assertThat(tags(file)).containsExactly("A", "B");
  }

  @Test
  void aBookThatIsDeletedReplacedOrWrittenOverIsNoticed() throws IOException {
    Path other = book("other.nocking", "X");
    byte[] otherBytes = Files.readAllBytes(other);
    Path file = book("a.nocking", "A");
    try (BookFile b = open(file)) {
      Files.copy(other, folder.resolve("moved"));
      Files.move(folder.resolve("moved"), file, StandardCopyOption.REPLACE_EXISTING);
      assertThat(b.happened()).isEqualTo(Happening.REPLACED);
      assertThatThrownBy(() -> b.save(Channel.blank("B", "B"), "edit"))
          .hasMessageContaining("a.nocking was replaced by another file while it was open");
      b.copyTo(folder.resolve("rescued.nocking"));
    }
    assertThat(tags(folder.resolve("rescued.nocking"))).containsExactly("A");
    assertThat(tags(file)).as("what replaced it is left alone").containsExactly("X");

    Path second = book("c.nocking", "C");
    try (BookFile b = open(second)) {
      b.checkpoint();
      Files.write(second, otherBytes);
      assertThat(b.happened()).isEqualTo(Happening.CHANGED);
      assertThatThrownBy(() -> b.note("kind", "C", "text"))
          .hasMessageContaining("was changed by another program while it was open");
    }
    assertThat(Files.readAllBytes(second)).isEqualTo(otherBytes);

    Path third = book("d.nocking", "D");
    try (BookFile b = open(third)) {
      Files.delete(third);
      assertThat(b.happened()).isEqualTo(Happening.GONE);
      assertThatThrownBy(() -> b.save(Channel.blank("B", "B"), "edit"))
          .hasMessageContaining("was deleted or moved away while it was open");
    }
    assertThat(third).doesNotExist();
  }

  @Test
  void oneWhoOnlyTouchesTheFileRaisesNoAlarm() throws IOException {
    Path file = book("a.nocking", "A");
    try (BookFile b = open(file)) {
      b.checkpoint();
      Files.setLastModifiedTime(file, FileTime.from(Instant.parse("2026-04-02T00:00:00Z")));
      assertThat(b.happened()).isEqualTo(Happening.NOTHING);
      b.save(Channel.blank("B", "B"), "edit");
    }
    assertThat(tags(file)).containsExactly("A", "B");
  }

  @Test
  void aSecondWindowOfOneProcessLeavesTheLockToTheFirst() throws IOException {
    Path file = book("a.nocking", "A");
    try (BookFile first = open(file)) {
      open(file).close();
      assertThat(OpeningProcess.said(OpeningProcess.start(file, "B")))
          .isEqualTo("another window has it open");
      assertThat(first.writable()).isTrue();
    }
    assertThat(OpeningProcess.said(OpeningProcess.start(file, "B"))).isEqualTo("written, 2");
  }

  @Test
  void aLinkLeadsToTheSameLock() throws IOException {
    Path file = book("a.nocking", "A");
    Path link = Files.createSymbolicLink(folder.resolve("link.nocking"), file);
    try (BookFile first = open(file);
        BookFile second = open(link)) {
      assertThat(second.readOnlyBecause()).isEqualTo("another window has it open");
      assertThat(first.writable()).isTrue();
    }
  }

  @Test
  void manyProcessesAtOnceShareOneDriverAndMakeOneBook() throws IOException {
    Path file = folder.resolve("new.nocking");
    Path driver = folder.resolve("driver");
    var said = new ArrayList<String>();
    for (int round = 0; round < 4; round++) {
      var running = new ArrayList<Process>();
      for (int i = 0; i < 4; i++) running.add(OpeningProcess.start(file, "C" + round + i, driver));
      for (Process p : running) said.add(OpeningProcess.said(p));
    }
    assertThat(said)
        .allMatch(
            s ->
                s.startsWith("written, ")
                    || s.equals("another window has it open")
                    || s.endsWith("is in use: another window or command is making it just now"));
    long written = said.stream().filter(s -> s.startsWith("written")).count();
    assertThat(written).isPositive();
    assertThat(tags(file)).hasSize((int) written);
    try (var unpacked = Files.walk(driver)) {
      assertThat(unpacked.filter(Files::isRegularFile)).as("one library for all").hasSize(1);
    }
  }

  @Test
  void anExportHasTheUsualModeAndNeverReplacesAFolder() throws IOException {
    Path usual = Files.writeString(folder.resolve("usual"), "x");
    Path export = folder.resolve("export.csv");
    Output.write(export, "x", false);
    assertThat(Files.getPosixFilePermissions(export))
        .isEqualTo(Files.getPosixFilePermissions(usual));
    Path sub = Files.createDirectory(folder.resolve("sub"));
    assertThatThrownBy(() -> Output.write(sub, "x", true)).hasMessageContaining("is a folder");
    Path link = Files.createSymbolicLink(folder.resolve("link.csv"), export);
    Output.write(link, "new", true);
    assertThat(link).isSymbolicLink();
    assertThat(export).hasContent("new");
  }
}
