package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Writer;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import nocking.analysis.Analysis;
import nocking.analysis.Jobs;
import nocking.analysis.RunDraft;
import nocking.analysis.RunExpectation;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BenchServer;
import nocking.bench.simulated.Scene;
import nocking.book.BookFile;
import nocking.channel.Channel;
import nocking.channel.RunJson;
import nocking.demo.Hatchery;
import nocking.points.ReferencePoint;
import nocking.quantity.Value;
import nocking.run.Act;
import nocking.run.RunEntry;
import nocking.run.RunPlan;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A run on the command line with somebody beside it. */
class RunWordsTest {
  @TempDir Path folder;
  private final Channel channel = Hatchery.book(Hatchery.SEED).byTag("BL-P1").orElseThrow();
  private BenchServer bench;
  private Path plan;

  @BeforeEach
  void begin() throws IOException {
    bench = new BenchServer(new BenchModel(Scene.named("pump").orElseThrow(), 5), 0);
    Analysis a = Analysis.of(channel);
    RunPlan p =
        RunExpectation.in(
            RunDraft.plan(List.of(a), bench.reference(), List.of(bench.meter(0)))
                .withSetPoints(List.of(Value.of(20), Value.of(40), Value.of(60))),
            id -> Optional.of(a));
    plan = Files.writeString(folder.resolve("plan.json"), RunJson.planFile(p));
    try (BookFile file = BookFile.open(book(), Clock.systemUTC())) {
      file.save(channel, "start");
    }
  }

  @AfterEach
  void end() {
    bench.close();
  }

  private Path book() {
    return folder.resolve("b.nocking");
  }

  private void pullTheWire() throws IOException {
    String[] at = bench.control().split(":");
    try (var socket = new Socket(at[0], Integer.parseInt(at[1]))) {
      socket
          .getOutputStream()
          .write("SIM:FAULT 1 PULLED_WIRE\n".getBytes(StandardCharsets.US_ASCII));
      var in = new InputStreamReader(socket.getInputStream(), StandardCharsets.US_ASCII);
      assertThat(new BufferedReader(in).readLine()).isEqualTo("OK");
    }
  }

  /** A run beside which somebody answers what is said; null closes the input. */
  private List<String> attended(Function<String, String> answer) throws Exception {
    Process p =
        CommandProcess.of(
                folder,
                "run",
                plan.toString(),
                "--book",
                book().toString(),
                "--attended",
                "--bench",
                bench.control())
            .redirectErrorStream(true)
            .start();
    var said = new ArrayList<String>();
    Writer in = p.outputWriter();
    try (BufferedReader out = p.inputReader()) {
      for (String line = out.readLine(); line != null; line = out.readLine()) {
        said.add(line);
        String words = answer.apply(line);
        if (words == null) in.close();
        else if (!words.isEmpty()) {
          in.write(words + "\n");
          in.flush();
        }
      }
    }
    p.waitFor();
    return said;
  }

  private List<RunEntry> journal() {
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      return file.runs().getFirst().entries();
    }
  }

  private List<ReferencePoint> points() {
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      return file.read().channels().getFirst().calibration().points().points().stream()
          .filter(p -> p.taken() != null)
          .toList();
    }
  }

  @Test
  void aRemarkAndARepeatAreHeardAndStandInTheJournal() throws Exception {
    var once = new ArrayList<String>();
    List<String> said =
        attended(
            line -> {
              if (line.startsWith("to 20")) return "note both valves shut\nwarten";
              if (line.startsWith("point 2") && once.isEmpty()) {
                once.add(line);
                return "Repeat the hose slipped";
              }
              return "";
            });
    assertThat(said)
        .contains("read 'warten', expected hold, go, skip, repeat, take, note or stop, and why");
    assertThat(journal())
        .filteredOn(e -> e instanceof Act a && a.kind() == Act.Kind.NOTE)
        .extracting(e -> ((Act) e).why())
        .contains("both valves shut");
    assertThat(journal())
        .filteredOn(e -> e instanceof Act a && a.kind() == Act.Kind.REPEAT)
        .extracting(e -> ((Act) e).why())
        .containsExactly("the hose slipped");
    assertThat(points())
        .extracting(ReferencePoint::leftOut)
        .filteredOn(o -> o != null)
        .containsExactly("taken once more: the hose slipped");
  }

  /** Whoever is there is asked; what they say yes to counts, and says what spoke against it. */
  @Test
  void aDoubtIsAskedAndAYesIsMarked() throws Exception {
    pullTheWire();
    List<String> said = attended(line -> line.endsWith("and why?") ? "take as it is" : "");
    assertThat(said).anyMatch(l -> l.contains("where only a fault lies"));
    assertThat(points())
        .isNotEmpty()
        .allSatisfy(
            p -> {
              assertThat(p.counts()).isTrue();
              assertThat(p.doubt().orElseThrow()).contains("where only a fault lies");
            });
  }

  /** A procedure asks, too; without an answer that says otherwise it is not established. */
  @Test
  void aProcedureAsksWhatIsToBecomeOfIt() throws Exception {
    Analysis a = Analysis.of(channel);
    RunPlan points = RunDraft.plan(List.of(a), bench.reference(), List.of(bench.meter(0)));
    RunPlan zero =
        RunExpectation.in(
            Jobs.plan(points, StepsOnLine.named("zero and span", a), channel),
            id -> Optional.of(a));
    Files.writeString(plan, RunJson.planFile(zero));
    pullTheWire();
    var asked = new ArrayList<String>();
    List<String> said =
        attended(
            line -> {
              if (line.endsWith("and why?")) {
                asked.add(line);
                return "take so it is";
              }
              return line.startsWith("Enter") ? "\n" : "";
            });
    assertThat(asked).as(said.toString()).isNotEmpty();
    assertThat(said).noneMatch(l -> l.startsWith("pass:"));
    assertThat(points()).isEmpty();
  }

  /** Whoever has gone cannot say yes: it ends there, and waits. */
  @Test
  void aDoubtThatNobodyAnswersEndsIt() throws Exception {
    pullTheWire();
    List<String> said = attended(line -> line.startsWith("to 20") ? null : "");
    assertThat(said).anyMatch(l -> l.contains("where only a fault lies"));
    assertThat(said).anyMatch(l -> l.contains("--resume"));
    assertThat(points()).isEmpty();
  }
}
