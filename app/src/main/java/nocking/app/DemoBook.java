package nocking.app;

import static java.nio.file.LinkOption.NOFOLLOW_LINKS;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.UserPrincipal;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Set;
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
  static final String NAME = "millrace-hatchery" + BookFile.ENDING;

  /** What tells a folder of this program from a person's own of that name. */
  static final String MARK = ".made-by-nocking";

  /** All that this program leaves in such a folder. */
  private static final Set<String> OWN =
      Set.of(MARK, NAME, NAME + "-wal", NAME + "-shm", NAME + "-journal", "." + NAME + ".lock");

  /** A folder that is younger may be another window's that has not yet opened its book. */
  private static final Duration SETTLED = Duration.ofMinutes(10);

  private static final List<Path> MADE = new CopyOnWriteArrayList<>();

  private DemoBook() {}

  /**
   * A fresh copy in a temporary folder, which goes with {@link #discard}. Copies that were left by
   * windows that ended in a crash go now.
   */
  static Path fresh() {
    Path temporary = Path.of(System.getProperty("java.io.tmpdir"));
    try {
      Path folder = Files.createTempDirectory(temporary, FOLDER);
      MADE.add(folder);
      Files.writeString(folder.resolve(MARK), mark(folder), StandardOpenOption.CREATE_NEW);
      discardOld(temporary, Files.getOwner(folder));
      Path file = folder.resolve(NAME);
      fill(file);
      return file;
    } catch (IOException e) {
      throw new BookException(
          Cause.OUTSIDE,
          "the temporary folder cannot be written: " + FileTrouble.why(temporary, e),
          e);
    }
  }

  /** Moved or copied elsewhere, the mark is none. */
  static String mark(Path folder) {
    return "Nocking keeps a copy of its demo book in %s and takes the folder away.\n"
        .formatted(folder.getFileName());
  }

  /** Takes away the fresh copies of this process; their windows are closed. */
  static void discard() {
    MADE.forEach(DemoBook::delete);
    MADE.clear();
  }

  /** Takes away what windows that ended in a crash have left: folders of this program only. */
  static void discardOld(Path temporary, UserPrincipal owner) throws IOException {
    Instant settled = Instant.now().minus(SETTLED);
    List<Path> left;
    try (var files = Files.list(temporary)) {
      left =
          files
              .filter(f -> f.getFileName().toString().startsWith(FOLDER))
              .filter(f -> !MADE.contains(f))
              .toList();
    }
    for (Path f : left) {
      try {
        boolean old = Files.getLastModifiedTime(f, NOFOLLOW_LINKS).toInstant().isBefore(settled);
        if (old && isOwn(f, owner) && !BookFile.inUse(f.resolve(NAME))) delete(f);
      } catch (IOException e) {
        LOG.warn("the demo copy in {} was left there", f, e);
      }
    }
  }

  private static boolean isOwn(Path folder, UserPrincipal owner) throws IOException {
    Path mark = folder.resolve(MARK);
    return Files.isDirectory(folder, NOFOLLOW_LINKS)
        && Files.getOwner(folder, NOFOLLOW_LINKS).equals(owner)
        && Files.isRegularFile(mark, NOFOLLOW_LINKS)
        && Files.size(mark) == mark(folder).length()
        && Files.readString(mark).equals(mark(folder));
  }

  /** Where a person has put something of their own the folder stays as it is. */
  private static void delete(Path folder) {
    try {
      List<Path> all;
      try (var files = Files.list(folder)) {
        all = files.toList();
      }
      boolean own =
          all.stream()
              .allMatch(
                  f ->
                      OWN.contains(f.getFileName().toString())
                          && Files.isRegularFile(f, NOFOLLOW_LINKS));
      if (!own) return;
      for (Path f : all) Files.deleteIfExists(f);
      Files.deleteIfExists(folder);
    } catch (IOException e) {
      LOG.warn("the demo copy in {} was left there", folder, e);
    }
  }

  /** Makes the demo book at a path, whole, unless there is a file already. */
  static Path at(Path file) {
    if (Files.exists(file)) return file;
    Path made = fresh();
    try (BookFile book = BookFile.openToRead(made, Clock.systemUTC())) {
      book.copyTo(file);
    } finally {
      discard();
    }
    return file;
  }

  private static void fill(Path file) {
    try (BookFile book = BookFile.open(file, Clock.systemUTC())) {
      Book hatchery = Hatchery.book(Hatchery.SEED);
      book.save(Book.EMPTY, hatchery, "demo book made");
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
