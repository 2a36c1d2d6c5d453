package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.BufferedReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import nocking.bench.simulated.Scene;
import nocking.book.BookFile;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.demo.Hatchery;
import nocking.points.ReferencePoint;
import nocking.procedure.Taken;
import nocking.run.StoredRun;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Runs from the command line against a simulator in a process of its own. */
class RunCommandTest {
  @TempDir Path folder;
  private Process simulator;
  private JsonNode doors;

  private Path book() {
    return folder.resolve("b.nocking");
  }

  private void simulate(String scene, String speed) throws IOException {
    simulator =
        CommandProcess.of(folder, "simulate", "--scene", scene, "--speed", speed, "--json").start();
    doors = JsonMapper.shared().readTree(new BufferedReader(simulator.inputReader()).readLine());
  }

  @AfterEach
  void stop() throws InterruptedException {
    if (simulator == null) return;
    simulator.destroy();
    simulator.waitFor();
  }

  private Channel hatchery(String tag) {
    Book demo = Hatchery.book(Hatchery.SEED);
    Channel c = demo.byTag(tag).orElseThrow();
    try (BookFile file = BookFile.open(book(), Clock.systemUTC())) {
      file.save(c, "start");
    }
    return c;
  }

  private Path draft(String tag, String... more) throws IOException {
    var arguments =
        new ArrayList<>(
            List.of(
                "run",
                "--draft",
                "--book",
                book().toString(),
                "--channel",
                tag,
                "--reference",
                doors.get("reference").asString(),
                "--meter",
                doors.get("meters").get(0).get("address").asString()));
    arguments.addAll(List.of(more));
    Console c = Console.run(arguments.toArray(new Object[0]));
    assertThat(c.code()).isZero();
    Path plan = folder.resolve("plan.json");
    Files.writeString(plan, c.out());
    return plan;
  }

  /** Five points up and down: what is adopted is the truth within the simulator's noise. */
  @Test
  void aRunTakesItsPointsIntoTheChannel() throws IOException {
    simulate("pump", "0");
    Channel before = hatchery("BL-P1");
    Path plan = draft("BL-P1");
    Files.writeString(
        plan,
        Files.readString(plan)
            .replaceFirst("\"setPoints\" : \\[[^]]*]", "\"setPoints\" : [0, 15, 30, 45, 60]"));
    Console c =
        Console.run(
            "run",
            plan.toString(),
            "--book",
            book().toString(),
            "--json",
            "--bench",
            doors.get("control").asString());
    assertThat(c.code()).as(c.err()).isZero();
    assertThat(c.err()).contains("to 15 kPa").contains("point 9 of 9: ");
    JsonNode said = JsonMapper.shared().readTree(c.out());
    assertThat(said.get("state").asString()).isEqualTo("done");
    assertThat(said.get("points")).hasSize(9);
    assertThat(said.get("readings").asInt()).isGreaterThan(90);
    Channel after;
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      after = file.read().channels().getFirst();
      assertThat(file.problems()).isEmpty();
    }
    int had = before.calibration().points().points().size();
    var points = after.calibration().points().points();
    assertThat(points).hasSize(had + 9);
    var sensor = Scene.named("pump").orElseThrow().sensors().getFirst();
    for (ReferencePoint p : points.subList(had, had + 9)) {
      double x = p.applied().number();
      // Noise of the reference, its last digit and the hysteresis, in volts; and the meter's own.
      double stated = 0.0277 * (0.01 + 0.005 + 0.03 + 0.01) + 4 * 0.0006 / Math.sqrt(10);
      assertThat(p.mean()).isCloseTo(sensor.volts().applyAsDouble(x), within(stated));
      assertThat(p.taken().run()).isEqualTo(said.get("run").asString());
      assertThat(p.readings()).hasSize(10);
    }
    assertThat(points.getLast().down()).isTrue();
    // The document is what its schema and its reader know.
    assertThat(ChannelJson.readChannel(ChannelJson.write(after), "it")).isEqualTo(after);
  }

  /** A procedure goes from step to step, and ends with its record. */
  @Test
  void aProcedureIsCarriedOutToItsRecord() throws IOException {
    simulate("clamp", "0");
    Channel before = hatchery("SG-P1");
    Path plan = draft("SG-P1", "--procedure", "mechanical");
    Files.writeString(
        plan,
        Files.readString(plan)
            .replaceFirst(
                "\"target\" : [\\s\\S]*?\"where\"",
                "\"target\" : 4.4, \"window\" : 0.004, \"where\""));
    Console c =
        Console.run(
            "run",
            plan.toString(),
            "--book",
            book().toString(),
            "--json",
            "--yes",
            "--bench",
            doors.get("control").asString());
    assertThat(c.code()).as(c.err()).isZero();
    assertThat(c.err()).contains("Tighten the clamp").contains("check the seal");
    JsonNode record = JsonMapper.shared().readTree(c.out()).get("record");
    assertThat(record.get("verdict").asString()).isEqualTo("pass");
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      assertThat(file.read().channels()).containsExactly(before);
      assertThat(file.problems()).isEmpty();
      StoredRun run = file.runs().getFirst();
      assertThat(run.unfinished()).isFalse();
      List<Taken> taken = run.progress().taken();
      assertThat(taken.get(taken.size() - 2).volts()).isCloseTo(4.4, within(0.004));
    }
    Console unknown =
        Console.run(
            "run",
            "--draft",
            "--book",
            book().toString(),
            "--channel",
            "SG-P1",
            "--reference",
            "h:1",
            "--meter",
            "h:2",
            "--procedure",
            "polish");
    assertThat(unknown.code()).isEqualTo(3);
    assertThat(unknown.err()).contains("'polish'").contains("two ends learnt");
    for (String address : List.of("127.0.0.1:", ":5025", "127.0.0.1", "h:0", "h:70000")) {
      Console refused =
          Console.run(
              "run",
              "--draft",
              "--book",
              book().toString(),
              "--channel",
              "SG-P1",
              "--reference",
              "h:1",
              "--meter",
              address);
      assertThat(refused.code()).as(address).isEqualTo(3);
      assertThat(refused.err())
          .contains("'%s' is no address; expected HOST:PORT".formatted(address));
      assertThat(refused.out()).as("no plan is printed").isEmpty();
    }
  }

  /** Interrupted, it ends after the reading under way; what waits is said, and gone on with. */
  @Test
  void anInterruptedRunGoesOn() throws Exception {
    simulate("pump", "20");
    hatchery("BL-P1");
    Path plan = draft("BL-P1");
    Process run =
        CommandProcess.of(
                folder, "run", plan.toString(), "--book", book().toString(), "--speed", "20")
            .start();
    try (BufferedReader err = run.errorReader()) {
      for (String l = err.readLine(); l != null && !l.startsWith("point 2"); ) l = err.readLine();
      // Ctrl+C may be switched off for what runs in the background; the end of a session is not.
      run.destroy();
      assertThat(run.waitFor(30, TimeUnit.SECONDS)).isTrue();
    }
    // The book is closed like at any other end: a copy of the file alone is complete.
    assertThat(Path.of(book() + "-wal")).doesNotExist();
    Path alone = Files.copy(book(), folder.resolve("alone.nocking"));
    try (BookFile file = BookFile.openToRead(alone, Clock.systemUTC())) {
      assertThat(file.runs()).singleElement().matches(r -> r.unfinished());
      assertThat(file.problems()).isEmpty();
    }
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      assertThat(file.runs()).singleElement().matches(r -> r.unfinished());
      assertThat(file.runs().getFirst().progress().points().size()).isBetween(2, 3);
      assertThat(file.problems()).isEmpty();
    }
    Console again = Console.run("run", plan.toString(), "--book", book().toString());
    assertThat(again.code()).isEqualTo(NockingCli.BAD_INPUT);
    assertThat(again.err()).contains("of 13 points are complete").contains("--resume");
    stop();
    simulate("pump", "0");
    Path moved = draft("BL-P1");
    Console on =
        Console.run(
            "run",
            moved.toString(),
            "--book",
            book().toString(),
            "--resume",
            "--json",
            "--bench",
            doors.get("control").asString());
    assertThat(on.code()).as(on.err()).isZero();
    assertThat(JsonMapper.shared().readTree(on.out()).get("points")).hasSize(13);
  }

  /**
   * Killed between its end and its points in the channel, it is gone on with there: once, and
   * beside it no other run is begun without a word.
   */
  @Test
  void aRunThatEndedBeforeItsPointsWereInTheChannelIsTakenOver() throws IOException {
    simulate("pump", "0");
    hatchery("BL-P1");
    Path plan = draft("BL-P1");
    String bench = doors.get("control").asString();
    String b = book().toString();
    Channel before;
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      before = file.read().byTag("BL-P1").orElseThrow();
    }
    Console ran = Console.run("run", plan.toString(), "--book", b, "--bench", bench);
    assertThat(ran.code()).as(ran.err()).isZero();
    List<ReferencePoint> points = points();
    assertThat(points.size() - before.calibration().points().points().size()).isEqualTo(13);
    // What a kill in between leaves: the run to its end, and the channel as it was.
    try (BookFile file = BookFile.open(book(), Clock.systemUTC())) {
      file.save(before, "as it was");
    }
    Console on = Console.run("run", plan.toString(), "--book", b, "--resume");
    assertThat(on.code()).as(on.err()).isZero();
    assertThat(on.err()).contains("had ended before its points were in BL-P1");
    assertThat(points()).isEqualTo(points);
    Console again = Console.run("run", plan.toString(), "--book", b, "--resume");
    assertThat(again.err()).contains("no run of this plan waits");
    assertThat(points()).isEqualTo(points);
    // Whoever begins another run instead is told, and loses neither.
    try (BookFile file = BookFile.open(book(), Clock.systemUTC())) {
      file.save(before, "as it was");
    }
    Console another = Console.run("run", plan.toString(), "--book", b, "--bench", bench);
    assertThat(another.code()).as(another.err()).isZero();
    assertThat(another.err())
        .contains("an earlier run of this plan has ended, and its points are not in BL-P1");
    assertThat(Console.run("run", plan.toString(), "--book", b, "--resume").code()).isZero();
    assertThat(points().size()).isEqualTo(points.size() + 13);
  }

  private List<ReferencePoint> points() {
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      return file.read().byTag("BL-P1").orElseThrow().calibration().points().points();
    }
  }

  /** Bad plans, books and benches: one sentence each, and the book as it was. */
  @Test
  void whatCannotBeRunIsSaid() throws IOException {
    simulate("pump", "0");
    hatchery("BL-P1");
    Path plan = draft("BL-P1");
    String sound = Files.readString(plan);
    refused(plan, sound.replace("\"average\" : 10", "\"average\" : 0"), "readings of a point");
    refused(plan, sound.replace("\"up_down\"", "\"sideways\""), "course");
    refused(plan, sound.replace("nocking-run-1", "nocking-run-9"), "format reads");
    refused(plan, sound.replace("\"hatchery-bl-p1\"", "\"ZZ-1\""), "has no channel 'ZZ-1'");
    refused(
        plan, sound.replaceFirst("\"setPoints\" : \\[[^]]*]", "\"setPoints\" : []"), "set points");
    refused(plan, sound.replace("\"within\"", "\"wihtin\""), "settle.within");
    refused(plan, sound.replaceFirst("\"unit\" : \"V\"", "\"unit\" : \"tomorrow\""), "is no unit");
    refused(
        plan,
        sound.replaceFirst("\"unit\" : \"V\"", "\"unit\" : \"kPa\""),
        "Meter at BL-P1 reads in kPa, expected a unit of V");
    refused(plan, "{", "is not JSON");
    Files.writeString(plan, sound);
    Console none = Console.run("run", plan.toString(), "--book", book().toString(), "--resume");
    assertThat(none.code()).isEqualTo(NockingCli.BAD_INPUT);
    assertThat(none.err()).contains("no run of this plan waits");
    Console nowhere =
        Console.run("run", plan.toString(), "--book", book().toString(), "--bench", "127.0.0.1:1");
    assertThat(nowhere.code()).isEqualTo(NockingCli.OUTSIDE);
    assertThat(nowhere.err()).contains("127.0.0.1:1 does not answer");
    String meter = doors.get("meters").get(0).get("address").asString();
    Files.writeString(plan, sound.replace(meter, "127.0.0.1:1"));
    Console unplugged = Console.run("run", plan.toString(), "--book", book().toString());
    assertThat(unplugged.code()).as(unplugged.err()).isEqualTo(NockingCli.OUTSIDE);
    assertThat(unplugged.err()).contains("127.0.0.1:1").doesNotContain("Exception");
    assertThat(unplugged.err().lines()).hasSize(1);
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      assertThat(file.runs()).as("what cannot be reached leaves no run behind").isEmpty();
    }
    Console scene = Console.run("simulate", "--scene", "moon");
    assertThat(scene.code()).isEqualTo(NockingCli.BAD_INPUT);
    assertThat(scene.err()).contains("read scene 'moon', expected one of bath, pump");
  }

  private void refused(Path plan, String text, String because) throws IOException {
    Files.writeString(plan, text);
    Console c = Console.run("run", plan.toString(), "--book", book().toString());
    assertThat(c.code()).as(c.err()).isEqualTo(NockingCli.BAD_INPUT);
    assertThat(c.err()).contains(because).doesNotContain("Exception").doesNotContain("java");
    assertThat(c.err().lines()).hasSize(1);
  }

  @Test
  void placesOfPointsAreProposedWithWhatTheyLeave() throws IOException {
    Channel c = Hatchery.book(Hatchery.SEED).byTag("RW-T1").orElseThrow();
    Path file = folder.resolve("rw.json");
    Files.writeString(file, ChannelJson.write(c));
    JsonNode said =
        JsonMapper.shared()
            .readTree(Console.run("points", file.toString(), "--model", "table", "--json").out());
    assertThat(said.get("points").get(0).asDouble()).isZero();
    assertThat(said.get("enough").asBoolean()).isTrue();
    assertThat(said.get("leaves").get("worst").asDouble())
        .isLessThanOrEqualTo(said.get("equalSteps").get("leaves").get("worst").asDouble());
    Console few = Console.run("points", file.toString(), "--model", "poly:3", "--count", "2");
    assertThat(few.code()).isEqualTo(NockingCli.BAD_INPUT);
    assertThat(few.err()).contains("expected 4 … 24 for poly:3");
  }
}
