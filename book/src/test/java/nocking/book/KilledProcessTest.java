package nocking.book;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import nocking.channel.Channel;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A process is killed again and again in the middle of edits, imports and revisions, while others
 * try the same book; nothing acknowledged is lost. {@code -Dnocking.kills=200} kills more often
 * than every build does.
 */
@Tag("campaign")
class KilledProcessTest {
  private static final int BOOKS = 2;
  private static final int KILLS_EACH = Integer.getInteger("nocking.kills", 20) / BOOKS;

  @TempDir Path folder;

  @Test
  void everyAcknowledgedEditSurvives() throws Exception {
    try (var pool = Executors.newFixedThreadPool(BOOKS)) {
      List<Callable<Integer>> rounds =
          IntStream.range(0, BOOKS)
              .<Callable<Integer>>mapToObj(i -> () -> killAgainAndAgain(i))
              .toList();
      int kills = 0;
      for (var result : pool.invokeAll(rounds)) kills += result.get();
      assertThat(kills).isEqualTo(BOOKS * KILLS_EACH);
    }
  }

  /** Told to end, a process leaves a file that is complete without its log. */
  @Test
  void whoIsToldToEndClosesTheBook() throws Exception {
    Path file = folder.resolve("told.nocking");
    try (BookFile book = BookFile.open(file, Clock.systemUTC())) {
      book.save(Channel.blank("c", "C-1").define(d -> d.withName("0")), "start");
    }
    Process p = start(file, 0);
    int last = -1;
    try (BufferedReader lines = p.inputReader()) {
      for (int i = 0; i < 20; i++) last = Integer.parseInt(lines.readLine());
      p.toHandle().destroy();
      for (String l = lines.readLine(); l != null; l = lines.readLine()) last = Integer.parseInt(l);
    }
    p.waitFor();
    assertThat(folder.resolve("told.nocking-wal")).doesNotExist();
    Path alone = Files.copy(file, folder.resolve("alone.nocking"));
    try (BookFile book = BookFile.openToRead(alone, Clock.systemUTC())) {
      assertThat(book.problems()).isEmpty();
      assertThat(Integer.parseInt(book.read().channels().getFirst().definition().name()))
          .isGreaterThanOrEqualTo(last);
    }
  }

  private int killAgainAndAgain(int seed) throws IOException, InterruptedException {
    Path file = folder.resolve("book" + seed + ".nocking");
    try (BookFile book = BookFile.open(file, Clock.systemUTC())) {
      book.save(Channel.blank("c", "C-1").define(d -> d.withName("0")), "start");
    }
    Random random = new Random(seed);
    int kills = 0;
    int found = 0;
    for (int round = 0; round < KILLS_EACH; round++) {
      int first = found + 1;
      int acknowledged = killAfter(file, found, 1 + random.nextInt(30), round % 10 == 0);
      try (BookFile book = BookFile.open(file, Clock.systemUTC())) {
        assertThat(book.writable()).as("the lock of a killed process is free").isTrue();
        found = Integer.parseInt(book.read().channels().getFirst().definition().name());
        assertThat(found).as("book %d, round %d", seed, round).isGreaterThanOrEqualTo(acknowledged);
        assertThat(book.problems()).isEmpty();
        Set<String> kept =
            book.revisions("c").stream()
                .filter(r -> r.problem().isEmpty())
                .map(Revision::name)
                .collect(Collectors.toSet());
        IntStream.rangeClosed(first, acknowledged)
            .filter(i -> i % EditingProcess.NAMED == 0)
            .forEach(
                i -> assertThat(kept.contains(String.valueOf(i))).as("revision %d", i).isTrue());
      }
      kills++;
    }
    return kills;
  }

  private static Process start(Path file, int from) throws IOException {
    return new ProcessBuilder(
            Path.of(System.getProperty("java.home"), "bin", "java").toString(),
            "-XX:TieredStopAtLevel=1",
            "-XX:+UseSerialGC",
            // A killed process leaves the driver's library behind; the test's folder goes with
            // it.
            "-Dorg.sqlite.tmpdir=" + file.getParent(),
            "-cp",
            System.getProperty("java.class.path"),
            EditingProcess.class.getName(),
            file.toString(),
            String.valueOf(from))
        .redirectError(ProcessBuilder.Redirect.DISCARD)
        .start();
  }

  /** Starts the process, lets it acknowledge so many edits, kills it; the last number it said. */
  private static int killAfter(Path file, int from, int edits, boolean others)
      throws IOException, InterruptedException {
    Process process = start(file, from);
    int last = -1;
    try (BufferedReader lines = process.inputReader()) {
      for (int i = 0; i < edits; i++) last = Integer.parseInt(lines.readLine());
      if (others) {
        List<Process> two =
            List.of(OpeningProcess.start(file, "x"), OpeningProcess.start(file, "y"));
        for (Process p : two) {
          assertThat(OpeningProcess.said(p)).isEqualTo("another window has it open");
        }
      }
      process.toHandle().destroyForcibly();
      // What it said before the signal arrived was acknowledged too.
      for (String line = lines.readLine(); line != null; line = lines.readLine()) {
        last = Integer.parseInt(line);
      }
    }
    process.waitFor();
    return last;
  }
}
