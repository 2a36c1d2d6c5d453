package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.stream.StreamSupport;
import nocking.analysis.Analysis;
import nocking.book.BookFile;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.RunJson;
import nocking.run.RunPlan;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A model that is adopted on the command line is the one that the window would adopt. */
class FitBookTest {
  @TempDir Path folder;

  private static Channel channel(Path book, String tag) {
    try (BookFile file = BookFile.openToRead(book, Clock.systemUTC())) {
      assertThat(file.problems()).isEmpty();
      return file.read().byTag(tag).orElseThrow();
    }
  }

  @Test
  void theModelThatIsGivenIsAdoptedAndStandsInTheLog() {
    Path book = Console.demoBook(folder);
    Channel before = channel(book, "BL-P1");
    Console c =
        Console.run("fit", "--book", book, "--of", "BL-P1", "--model", "line", "--adopt", "--json");
    assertThat(c.code()).as(c.err()).isZero();
    assertThat(c.json().get("adopted").asString()).isEqualTo("line");
    Channel after = channel(book, "BL-P1");
    assertThat(after).isEqualTo(Analysis.of(before).calibration().adopting("line"));
    assertThat(after.calibration().adopted().model()).isEqualTo("line");
    try (BookFile file = BookFile.openToRead(book, Clock.systemUTC())) {
      assertThat(file.log(after.id(), 10)).anyMatch(l -> l.text().equals("adopt line"));
    }
  }

  @Test
  void whatIsLockedOrHasNoPointsIsRefusedInASentence() {
    Path book = Console.demoBook(folder);
    Channel locked = channel(book, "IN-T2");
    Console c = Console.run("fit", "--book", book, "--of", "IN-T2", "--model", "line", "--adopt");
    assertThat(c.code()).isEqualTo(NockingCli.BAD_INPUT);
    assertThat(c.err()).contains("IN-T2 is locked");
    assertThat(channel(book, "IN-T2")).isEqualTo(locked);
    Console none = Console.run("fit", "--book", book, "--of", "HD-L1");
    assertThat(none.err()).contains("HD-L1 has no points that count");
    assertThat(Console.run("fit", "--adopt", "--of", "HD-L1").err()).contains("need --book");
    assertThat(Console.run("fit").err()).contains("a file of points is missing");
  }

  /** The places that are proposed become those of a plan. */
  @Test
  void theBestPlacesArePutIntoAPlan() throws IOException {
    Path book = Console.demoBook(folder);
    Channel c = channel(book, "RW-T1");
    Path json = Files.writeString(folder.resolve("c.json"), ChannelJson.write(c));
    Console draft =
        Console.run(
            "run",
            "--draft",
            "--book",
            book,
            "--channel",
            "RW-T1",
            "--reference",
            "127.0.0.1:5025",
            "--meter",
            "127.0.0.1:5026");
    Path plan = Files.writeString(folder.resolve("p.json"), draft.out());
    Console points = Console.run("points", json, "--model", "poly:2", "--json");
    Console taken = Console.run("points", json, "--model", "poly:2", "--take", plan);
    assertThat(taken.code()).as(taken.err()).isZero();
    RunPlan before = RunJson.readPlanFile(draft.out(), "p");
    RunPlan after = RunJson.readPlanFile(taken.out(), "p");
    assertThat(after.setPoints())
        .extracting(v -> v.number())
        .containsExactlyElementsOf(
            StreamSupport.stream(points.json().get("points").spliterator(), false)
                .map(n -> n.asDouble())
                .distinct()
                .toList());
    assertThat(after.withSetPoints(before.setPoints()).withRepeats(before.repeats()))
        .isEqualTo(before);
  }

  /** To look changes nothing, and says what the file of the same points says. */
  @Test
  void toLookChangesNothing() {
    Path book = Console.demoBook(folder);
    Channel before = channel(book, "BL-P1");
    Console c = Console.run("fit", "--book", book, "--of", "BL-P1", "--json");
    assertThat(c.code()).as(c.err()).isZero();
    assertThat(c.json().get("recommended").asString())
        .isEqualTo(Analysis.of(before).calibration().recommendation().orElseThrow().model());
    assertThat(channel(book, "BL-P1")).isEqualTo(before);
  }
}
