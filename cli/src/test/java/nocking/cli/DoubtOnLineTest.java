package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BenchServer;
import nocking.bench.simulated.Scene;
import nocking.book.BookFile;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.demo.Hatchery;
import nocking.points.ReferencePoint;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A run that nobody looks at: what speaks against it ends it, and it waits. */
class DoubtOnLineTest {
  @TempDir Path folder;
  private BenchServer bench;

  private void simulate(String scene) throws IOException {
    stop();
    bench = new BenchServer(new BenchModel(Scene.named(scene).orElseThrow(), 5), 0);
  }

  @AfterEach
  void stop() {
    if (bench != null) bench.close();
    bench = null;
  }

  private Path book() {
    return folder.resolve("b.nocking");
  }

  private void hatchery(String... tags) {
    Book demo = Hatchery.book(Hatchery.SEED);
    try (BookFile file = BookFile.open(book(), Clock.systemUTC())) {
      for (String t : tags) file.save(demo.byTag(t).orElseThrow(), "start");
    }
  }

  private Channel channel(String tag) {
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      assertThat(file.problems()).isEmpty();
      return file.read().byTag(tag).orElseThrow();
    }
  }

  private long points(String tag) {
    return channel(tag).calibration().points().points().stream()
        .filter(p -> p.taken() != null)
        .count();
  }

  private Path draft(String tag, String... more) throws IOException {
    var arguments = new ArrayList<>(List.of("run", "--draft", "--book", book().toString()));
    arguments.addAll(List.of("--channel", tag, "--reference", bench.reference().address()));
    arguments.addAll(List.of("--meter", bench.meter(0).address()));
    arguments.addAll(List.of(more));
    Console c = Console.run(arguments.toArray(new Object[0]));
    assertThat(c.code()).as(c.err()).isZero();
    Path plan = folder.resolve("plan.json");
    Files.writeString(
        plan, c.out().replaceFirst("\"setPoints\" : \\[[^]]*]", "\"setPoints\" : [20, 40, 60]"));
    return plan;
  }

  private Console run(Path plan, String... more) {
    var arguments = new ArrayList<>(List.of("run", plan.toString(), "--book", book().toString()));
    arguments.addAll(List.of("--json", "--bench", bench.control()));
    arguments.addAll(List.of(more));
    return Console.run(arguments.toArray(new Object[0]));
  }

  private void fault(String name) throws IOException {
    String[] at = bench.control().split(":");
    try (var socket = new Socket(at[0], Integer.parseInt(at[1]))) {
      socket
          .getOutputStream()
          .write("SIM:FAULT 1 %s\n".formatted(name).getBytes(StandardCharsets.US_ASCII));
      var in = new InputStreamReader(socket.getInputStream(), StandardCharsets.US_ASCII);
      assertThat(new BufferedReader(in).readLine()).isEqualTo("OK");
    }
  }

  private static JsonNode json(Console c) {
    return JsonMapper.shared().readTree(c.out());
  }

  /** A wire that is off ends the run; put back, it goes on, and no point is lost or made up. */
  @Test
  void whatSpeaksAgainstItEndsTheRunAndItWaits() throws IOException {
    simulate("pump");
    hatchery("BL-P1");
    Path plan = draft("BL-P1");
    fault("PULLED_WIRE");
    Console ends = run(plan);
    assertThat(ends.code()).isEqualTo(NockingCli.FAIL);
    assertThat(json(ends).get("state").asString()).isEqualTo("broken off");
    assertThat(json(ends).get("doubt").asString())
        .contains("BL-P1 reads 0.00", "below 0.1000 V, where only a fault lies", "wire open");
    assertThat(points("BL-P1")).isZero();
    Console still = run(plan, "--resume");
    assertThat(still.code()).as("the wire is off yet").isEqualTo(NockingCli.FAIL);
    fault("NONE");
    Console on = run(plan, "--resume");
    assertThat(on.code()).as(on.err()).isZero();
    assertThat(json(on).get("points")).hasSize(5);
    assertThat(points("BL-P1")).isEqualTo(5);
  }

  /** Told to, it takes what it finds, and says so at every point. */
  @Test
  void whatIsTakenAllTheSameIsMarked() throws IOException {
    simulate("pump");
    hatchery("BL-P1");
    Path plan = draft("BL-P1");
    fault("PULLED_WIRE");
    Console c = run(plan, "--take-doubtful");
    assertThat(c.code()).as(c.err()).isZero();
    JsonNode read = json(c).get("points");
    assertThat(read).hasSize(5).allMatch(p -> p.get("doubt").asString().contains("a fault lies"));
    assertThat(c.err()).contains("taken all the same: BL-P1 reads");
  }

  /** A run that waits is ended, and what it has is in the channel. */
  @Test
  void aRunThatWaitsIsEndedWithItsPoints() throws IOException {
    simulate("pump");
    hatchery("BL-P1");
    Path plan = draft("BL-P1");
    assertThat(run(plan, "--end").err()).contains("no run of this plan waits");
    fault("FLAT_BATTERY");
    assertThat(run(plan).code()).isEqualTo(NockingCli.FAIL);
    fault("NONE");
    Console ended = run(plan, "--end");
    assertThat(ended.code()).as(ended.err()).isZero();
    assertThat(json(ended).get("state").asString()).isEqualTo("stopped");
    assertThat(points("BL-P1")).isEqualTo(json(ended).get("points").size());
    assertThat(run(plan, "--resume").err()).contains("no run of this plan waits");
  }

  /**
   * A plan that was corrected meanwhile does not make volts of millivolts half way through; how it
   * settles is gone on with as it is said now.
   */
  @Test
  void aRunGoesOnByItsOwnPlanOrNotAtAll() throws IOException {
    simulate("pump");
    hatchery("BL-P1");
    Path plan = draft("BL-P1");
    fault("PULLED_WIRE");
    assertThat(run(plan).code()).isEqualTo(NockingCli.FAIL);
    fault("NONE");
    String begun = Files.readString(plan);
    Files.writeString(plan, begun.replace("\"unit\" : \"V\"", "\"unit\" : \"mV\""));
    Console refused = run(plan, "--resume");
    assertThat(refused.code()).isEqualTo(NockingCli.BAD_INPUT);
    assertThat(refused.err())
        .contains("the meter of BL-P1 answers in 'mV', it was begun with 'V'", "--corrected");
    Files.writeString(plan, begun.replace("\"ask\" : \"READ?\"", "\"ask\" : \"FETC?\""));
    Console other = run(plan, "--resume", "--corrected");
    assertThat(other.code()).isEqualTo(NockingCli.BAD_INPUT);
    assertThat(other.err()).contains("is asked 'FETC?', it was begun with 'READ?'", "--end");
    Files.writeString(plan, begun.replaceFirst("\"giveUp\" : [0-9.]+", "\"giveUp\" : 99.0"));
    Console on = run(plan, "--resume");
    assertThat(on.code()).as(on.err()).isZero();
    assertThat(on.err())
        .contains("from here on seconds until it is given up '99.0', it was begun with");
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      assertThat(file.problems()).isEmpty();
      assertThat(file.runs().getFirst().progress().plan().giveUp()).isEqualTo(99);
    }
  }

  /** Two quantities on one reference are refused while nothing was read. */
  @Test
  void whatCouldMakeNoPointIsRefusedBeforeTheFirstReading() throws IOException {
    simulate("pump");
    hatchery("BL-P1", "RW-T1");
    Path plan = draft("BL-P1", "--channel", "RW-T1", "--meter", bench.meter(0).address());
    Console c = run(plan);
    assertThat(c.code()).isEqualTo(NockingCli.BAD_INPUT);
    assertThat(c.err()).contains("RW-T1 measures in °C, and what is applied is in kPa");
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      assertThat(file.runs()).isEmpty();
    }
  }

  /** What a procedure found goes into its channel from here, too. */
  @Test
  void whatAProcedureFoundIsTakenOver() throws IOException {
    simulate("pump");
    hatchery("BL-P1");
    Path plan = draft("BL-P1", "--procedure", "zero and span");
    Console c = run(plan, "--yes", "--adopt");
    assertThat(c.code()).as(c.err() + c.out()).isZero();
    assertThat(json(c).get("record").get("verdict").asString()).isEqualTo("pass");
    assertThat(json(c).get("adopted").get(0).asString()).isEqualTo("Trim by it");
    assertThat(channel("BL-P1").calibration().trim()).isNotNull();
    List<ReferencePoint> points = channel("BL-P1").calibration().points().points();
    assertThat(points).noneMatch(p -> p.taken() != null);
  }

  /** Ended, and killed before what it found was taken over; or somebody thinks of it later. */
  @Test
  void whatAnEndedProcedureFoundIsTakenOverLaterAndOnce() throws IOException {
    simulate("pump");
    hatchery("BL-P1");
    Path plan = draft("BL-P1", "--procedure", "zero and span");
    Console run = run(plan, "--yes");
    assertThat(run.code()).as(run.err()).isZero();
    assertThat(channel("BL-P1").calibration().trim()).isNull();
    Console later = run(plan, "--resume", "--adopt");
    assertThat(later.code()).as(later.err()).isZero();
    assertThat(json(later).get("adopted").get(0).asString()).isEqualTo("Trim by it");
    assertThat(channel("BL-P1").calibration().trim()).isNotNull();
    Console again = run(plan, "--resume", "--adopt");
    assertThat(json(again).get("adopted")).isEmpty();
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      assertThat(file.runs()).hasSize(1);
    }
  }
}
