package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import nocking.book.BookFile;
import nocking.book.LogEntry;
import nocking.book.Revision;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.demo.Hatchery;
import nocking.parts.StockPart;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Processes that import, copy, export, lock, name revisions, change the drawer and transfer tables
 * are killed at any moment. What they acknowledged is there; what they were at is all there or not
 * at all. {@code -Dnocking.command.kills=300} kills as often as it was done once by hand.
 */
@Tag("campaign")
class KilledCommandsTest {
  private static final int KILLS = Integer.getInteger("nocking.command.kills", 24);
  private static final int AT_ONCE = 2;

  @TempDir Path folder;

  @Test
  void whatWasAcknowledgedIsThereAndNothingIsThereInPart() throws Exception {
    try (var pool = Executors.newFixedThreadPool(AT_ONCE)) {
      List<Callable<Integer>> books =
          IntStream.range(0, AT_ONCE).<Callable<Integer>>mapToObj(i -> () -> kills(i)).toList();
      int kills = 0;
      for (var result : pool.invokeAll(books)) kills += result.get();
      assertThat(kills).isEqualTo(KILLS / AT_ONCE * AT_ONCE);
    }
  }

  private int kills(int seed) throws Exception {
    Path home = Files.createDirectory(folder.resolve("desk" + seed));
    Path book = home.resolve("b.nocking");
    Path incoming = home.resolve("incoming.json");
    Book hatchery = Hatchery.book(Hatchery.SEED);
    Files.writeString(incoming, ChannelJson.write(hatchery));
    var random = new Random(seed);
    int kills = 0;
    int from = 0;
    for (; kills < KILLS / AT_ONCE; kills++) {
      List<String> said = killAfter(home, from, 1 + random.nextInt(25), random);
      from += 1000;
      check(home, book, hatchery, said, "kill " + kills + " of " + seed);
    }
    return kills;
  }

  /** What the process said before it was killed; the pause before the kill is any. */
  private static List<String> killAfter(Path home, int from, int lines, Random random)
      throws IOException, InterruptedException {
    Process p =
        CommandProcess.of(
                WorkingProcess.class,
                home,
                home.toString(),
                String.valueOf(from),
                String.valueOf(random.nextInt(1000)))
            .redirectError(ProcessBuilder.Redirect.DISCARD)
            .start();
    var said = new ArrayList<String>();
    try (BufferedReader out = p.inputReader()) {
      for (int i = 0; i < lines; i++) {
        String line = out.readLine();
        if (line == null) break;
        said.add(line);
      }
      // Somewhere in what it does next: the instant is what the test is about.
      long until = System.nanoTime() + random.nextInt(40_000_000);
      while (System.nanoTime() < until) Thread.onSpinWait();
      p.toHandle().destroyForcibly();
      for (String l = out.readLine(); l != null; l = out.readLine()) said.add(l);
    }
    p.waitFor();
    return said;
  }

  private static void check(Path home, Path book, Book hatchery, List<String> said, String as)
      throws IOException {
    if (Files.exists(book)) {
      try (BookFile b = BookFile.open(book, Clock.systemUTC())) {
        assertThat(b.writable()).as(as).isTrue();
        assertThat(b.problems()).as(as).isEmpty();
        check(b, hatchery, said, as);
      }
    } else {
      assertThat(said).as(as).isEmpty();
    }
    Path out = home.resolve("out.json");
    if (Files.exists(out)) ChannelJson.readAny(Files.readString(out), as);
    else assertThat(said).as(as).noneMatch(l -> l.startsWith("export "));
    copies(home, said, as);
  }

  private static void check(BookFile b, Book hatchery, List<String> said, String as) {
    Book read = b.read();
    // An import is there with its cards and its drawer, or not at all.
    List<String> whole = hatchery.channels().stream().map(Channel::tag).toList();
    List<String> tags =
        read.channels().stream().map(Channel::tag).filter(t -> !t.equals("W-1")).toList();
    if (!tags.isEmpty() || said.contains("import")) {
      assertThat(tags).as(as).isEqualTo(whole);
      assertThat(read.cards()).as(as).hasSameSizeAs(hatchery.cards());
      assertThat(read.shapes()).as(as).hasSameSizeAs(hatchery.shapes());
    }
    // All rows of a drawer are of one edit.
    if (!read.stock().equals(hatchery.stock())) {
      assertThat(read.stock().stream().map(StockPart::quantity).distinct().count())
          .as(as)
          .isLessThanOrEqualTo(1);
    }
    Set<String> there =
        Stream.concat(b.log("w", 1_000_000).stream(), b.log("", 1_000_000).stream())
            .map(LogEntry::text)
            .collect(Collectors.toCollection(HashSet::new));
    b.revisions("w").stream().map(Revision::name).forEach(there::add);
    read.byTag("W-1")
        .ifPresent(w -> w.receiver().transfers().forEach(t -> there.add("transfer " + t.by())));
    said.stream()
        .filter(l -> l.matches("(stock|lock|revision|transfer) .*"))
        .forEach(l -> assertThat(there).as(as).contains(l));
  }

  /** Each copy is sound, and each that was acknowledged is there. */
  private static void copies(Path home, List<String> said, String as) throws IOException {
    said.stream()
        .filter(l -> l.startsWith("copy "))
        .forEach(l -> assertThat(home.resolve(l + ".nocking")).as(as).exists());
    List<Path> copies;
    try (var all = Files.list(home)) {
      copies = all.filter(p -> p.getFileName().toString().startsWith("copy ")).toList();
    }
    for (Path f : copies) {
      if (!f.toString().endsWith(".nocking")) continue;
      try (BookFile b = BookFile.openToRead(f, Clock.systemUTC())) {
        assertThat(b.problems()).as("%s: %s", as, f).isEmpty();
      }
      Files.delete(f);
    }
  }
}
