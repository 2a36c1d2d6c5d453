package nocking.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import nocking.book.BookException;
import nocking.book.BookException.Cause;
import nocking.book.BookFile;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.demo.Hatchery;

/** Makes the demo book as a file. */
final class DemoBook {
  private DemoBook() {}

  /** A fresh copy in a temporary folder. */
  static Path fresh() {
    try {
      Path file = Files.createTempDirectory("nocking-demo").resolve("millrace-hatchery.nocking");
      fill(file);
      return file;
    } catch (IOException e) {
      throw new BookException(
          Cause.OUTSIDE, "the temporary folder cannot be written: " + e.getMessage(), e);
    }
  }

  /** Makes the demo book at a path, unless there is a file already. */
  static Path at(Path file) {
    if (!Files.exists(file)) fill(file);
    return file;
  }

  private static void fill(Path file) {
    try (BookFile book = BookFile.open(file, Clock.systemUTC())) {
      Book hatchery = Hatchery.book(Hatchery.SEED);
      book.saveAll(hatchery.channels(), "demo book made");
      book.saveCards(hatchery.cards(), "demo book made");
      book.saveStock(hatchery.stock(), "demo book made");
      for (Channel c : book.read().channels()) {
        if (c.locked()) book.nameRevision(c, "as left, spring calibration");
      }
    }
  }
}
