package nocking.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import nocking.book.BookException;
import nocking.book.BookException.Cause;
import nocking.book.BookFile;
import nocking.book.FileTrouble;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.demo.Hatchery;
import nocking.demo.HatcheryRuns;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Makes the demo book as a file. */
final class DemoBook {
  private static final Logger LOG = LoggerFactory.getLogger(DemoBook.class);
  private static final String FOLDER = "nocking-demo";
  private static final String NAME = "millrace-hatchery" + BookFile.ENDING;

  /** A folder that is younger may be another window's that has not yet opened its book. */
  private static final Duration SETTLED = Duration.ofMinutes(10);

  private static final List<Path> MADE = new CopyOnWriteArrayList<>();

  private DemoBook() {}

  /**
   * A fresh copy in a temporary folder, which goes with {@link #discard}. Copies that were left by
   * windows that ended in a crash go now.
   */
  static Path fresh() {
    try {
      discardOld();
      Path folder = Files.createTempDirectory(FOLDER);
      MADE.add(folder);
      Path file = folder.resolve(NAME);
      fill(file);
      return file;
    } catch (IOException e) {
      throw new BookException(
          Cause.OUTSIDE,
          "the temporary folder cannot be written: "
              + FileTrouble.why(Path.of(System.getProperty("java.io.tmpdir")), e),
          e);
    }
  }

  /** Takes away the fresh copies of this process; their windows are closed. */
  static void discard() {
    MADE.forEach(DemoBook::delete);
    MADE.clear();
  }

  private static void discardOld() throws IOException {
    Instant settled = Instant.now().minus(SETTLED);
    List<Path> left;
    try (var files = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
      left =
          files
              .filter(f -> f.getFileName().toString().startsWith(FOLDER))
              .filter(f -> !MADE.contains(f))
              .toList();
    }
    for (Path f : left) {
      boolean young = Files.getLastModifiedTime(f).toInstant().isAfter(settled);
      if (!young && !BookFile.inUse(f.resolve(NAME))) delete(f);
    }
  }

  private static void delete(Path folder) {
    try (var files = Files.list(folder)) {
      for (Path f : files.toList()) Files.delete(f);
      Files.delete(folder);
    } catch (IOException e) {
      LOG.warn("the demo copy in {} was left there", folder, e);
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
      book.saveShapes(hatchery.shapes(), "demo book made");
      book.saveInstruments(hatchery.instruments(), "demo book made");
      book.together(
          () -> {
            for (HatcheryRuns.Recorded r : HatcheryRuns.of(hatchery, Hatchery.SEED)) {
              r.into(book.begin(r.id(), r.plan()));
            }
          });
      for (Channel c : book.read().channels()) {
        if (c.journal().locked()) book.nameRevision(c, "as left, spring calibration");
      }
    }
  }
}
