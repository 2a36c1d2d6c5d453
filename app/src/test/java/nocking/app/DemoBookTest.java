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

/** Fresh copies of the demo book go with their window, and those of crashed windows at the next. */
class DemoBookTest {

  private static Path anHourOld() throws IOException {
    Path folder = Files.createTempDirectory("nocking-demo");
    DemoBook.at(folder.resolve("millrace-hatchery.nocking"));
    Files.setLastModifiedTime(folder, FileTime.from(Instant.now().minus(Duration.ofHours(1))));
    return folder;
  }

  @Test
  void copiesGoWithTheirWindowAndLeftOnesAtTheNextStart() throws IOException {
    Path left = anHourOld();
    Path open = anHourOld();
    try (BookFile other =
        BookFile.open(open.resolve("millrace-hatchery.nocking"), Clock.systemUTC())) {
      assertThat(other.writable()).isTrue();
      Files.setLastModifiedTime(open, FileTime.from(Instant.now().minus(Duration.ofHours(1))));
      Path fresh = DemoBook.fresh();
      assertThat(left).as("left by a crash").doesNotExist();
      assertThat(open).as("open in another window").exists();
      assertThat(fresh).exists();
      DemoBook.discard();
      assertThat(fresh.getParent()).doesNotExist();
    }
    Files.setLastModifiedTime(open, FileTime.from(Instant.now().minus(Duration.ofHours(1))));
    assertThat(DemoBook.fresh()).exists();
    assertThat(open).as("closed meanwhile").doesNotExist();
    DemoBook.discard();
  }
}
