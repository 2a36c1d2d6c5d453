package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import nocking.book.BookFile;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Fresh copies of the demo book go with their window, and those of crashed windows at the next;
 * what is a person's stays, whatever it is called.
 */
class DemoBookTest {
  @TempDir Path temporary;

  private static Path old(Path folder) throws IOException {
    Files.setLastModifiedTime(folder, FileTime.from(Instant.now().minus(Duration.ofHours(1))));
    return folder;
  }

  /** A folder as a window leaves it that ends in a crash. */
  private Path left(String name) throws IOException {
    Path folder = Files.createDirectory(temporary.resolve(name));
    Files.writeString(folder.resolve(DemoBook.MARK), DemoBook.mark(folder));
    BookFile.open(folder.resolve(DemoBook.NAME), Clock.systemUTC()).close();
    return old(folder);
  }

  private void discard() throws IOException {
    DemoBook.discardOld(temporary, Files.getOwner(temporary));
  }

  @Test
  void copiesGoWithTheirWindow() {
    Path fresh = DemoBook.fresh();
    assertThat(fresh).exists();
    DemoBook.discard();
    assertThat(fresh.getParent()).doesNotExist();
  }

  @Test
  void leftCopiesGoUnlessAWindowHasThemOpen() throws IOException {
    Path crashed = left("nocking-demo1");
    Path open = left("nocking-demo2");
    try (BookFile other = BookFile.open(open.resolve(DemoBook.NAME), Clock.systemUTC())) {
      assertThat(other.writable()).isTrue();
      old(open);
      discard();
      assertThat(crashed).doesNotExist();
      assertThat(open.resolve(DemoBook.NAME)).exists();
    }
    old(open);
    discard();
    assertThat(open).as("closed meanwhile").doesNotExist();
  }

  @Test
  void aYoungCopyMayBeAnotherWindows() throws IOException {
    Path young = left("nocking-demo1");
    Files.setLastModifiedTime(young, FileTime.from(Instant.now()));
    discard();
    assertThat(young).exists();
  }

  @Test
  void aPersonsFolderStays() throws IOException {
    Path mine = Files.createDirectory(temporary.resolve("nocking-demo-notes"));
    Path notes = Files.writeString(mine.resolve("notes.txt"), "a year of work");
    Path book = Files.createDirectory(temporary.resolve("nocking-demo-book"));
    BookFile.open(book.resolve(DemoBook.NAME), Clock.systemUTC()).close();
    Path file = Files.writeString(temporary.resolve("nocking-demo.txt"), "a file");
    old(mine);
    old(book);
    old(file);
    discard();
    assertThat(notes).hasContent("a year of work");
    assertThat(book.resolve(DemoBook.NAME)).exists();
    assertThat(file).exists();
  }

  /** What a person has put into such a folder is not looked for there, and stays. */
  @Test
  void aFolderWithSomethingOfAPersonsStaysWhole() throws IOException {
    Path folder = left("nocking-demo1");
    Path export = Files.writeString(folder.resolve("table.csv"), "raw,out");
    old(folder);
    discard();
    assertThat(export).exists();
    assertThat(folder.resolve(DemoBook.NAME)).exists();
  }

  /** Neither a link to a folder nor one in it is followed; a mark counts where it was made. */
  @Test
  void nothingIsTakenAwayThroughALink() throws IOException {
    Path elsewhere = left("elsewhere");
    Files.writeString(
        elsewhere.resolve(DemoBook.MARK), DemoBook.mark(temporary.resolve("nocking-demo1")));
    Files.createSymbolicLink(temporary.resolve("nocking-demo1"), old(elsewhere));
    Path linked = left("nocking-demo2");
    Files.move(linked.resolve(DemoBook.NAME), temporary.resolve("mine.nocking"));
    Files.createSymbolicLink(linked.resolve(DemoBook.NAME), temporary.resolve("mine.nocking"));
    Path moved = left("nocking-demo3");
    Path copied = temporary.resolve("nocking-demo4");
    Files.move(moved, copied);
    old(linked);
    old(copied);
    discard();
    assertThat(elsewhere.resolve(DemoBook.NAME)).exists();
    assertThat(temporary.resolve("mine.nocking")).exists();
    assertThat(copied.resolve(DemoBook.NAME)).exists();
  }

  @Test
  void aKeptDemoBookIsWholeOrNotThere() throws IOException {
    Path kept = DemoBook.at(temporary.resolve("kept.nocking"));
    try (BookFile b = BookFile.open(kept, Clock.systemUTC())) {
      assertThat(b.problems()).isEmpty();
      assertThat(b.read().channels()).hasSizeGreaterThan(10);
      assertThat(b.runs()).isNotEmpty();
    }
    assertThat(temporary).isDirectoryNotContaining("glob:**.part");
  }
}
