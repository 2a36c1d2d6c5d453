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
import nocking.book.BookFile;
import nocking.channel.Channel;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Ohms and milliamperes of the sensor itself, from an instrument and from a file. */
class SensorItselfCommandTest {
  @TempDir Path folder;
  private Path book;
  private Process simulator;
  private JsonNode doors;

  @BeforeEach
  void channels() {
    book = folder.resolve("b.nocking");
    made(
        "RW-T1",
        "--kind",
        "temperature",
        "--unit",
        "degC",
        "--range",
        "0..30",
        "--tolerance",
        "0.2",
        "--sensor",
        "ntc-beta",
        "r0=10k",
        "t0=25",
        "beta=3850",
        "--stage",
        "pull-up",
        "Vs=3.3",
        "Rp=18k",
        "--bits",
        "12",
        "--ref",
        "3.3V");
    made(
        "HD-L1",
        "--kind",
        "level",
        "--unit",
        "m",
        "--range",
        "0..4",
        "--tolerance",
        "0.01",
        "--sensor",
        "loop",
        "low=0",
        "high=4m",
        "current=4mA..20mA",
        "--stage",
        "shunt",
        "burden=150",
        "--bits",
        "12",
        "--ref",
        "3.3V");
  }

  private void made(String tag, String... how) {
    Path json = folder.resolve(tag + ".json");
    var words = new ArrayList<Object>(List.of("new", tag));
    words.addAll(List.of(how));
    words.addAll(List.of("--out", json));
    assertThat(Console.run(words.toArray()).code()).isZero();
    assertThat(Console.run("import", json, "--book", book).code()).isZero();
  }

  private void simulate(String scene) throws IOException {
    simulator =
        CommandProcess.of(folder, "simulate", "--scene", scene, "--speed", "0", "--json").start();
    doors = JsonMapper.shared().readTree(new BufferedReader(simulator.inputReader()).readLine());
  }

  @AfterEach
  void stop() throws InterruptedException {
    if (simulator == null) return;
    simulator.destroy();
    simulator.waitFor();
  }

  private Console draft(String tag, String unit) {
    return Console.run(
        "run",
        "--draft",
        "--book",
        book,
        "--channel",
        tag,
        "--reference",
        doors.get("reference").asString(),
        "--meter",
        doors.get("meters").get(0).get("address").asString(),
        "--meter-unit",
        unit);
  }

  private Path plan(Console draft, String setPoints) throws IOException {
    assertThat(draft.code()).as(draft.err()).isZero();
    return Files.writeString(
        folder.resolve("plan.json"),
        draft.out().replaceFirst("\"setPoints\" : \\[[^]]*]", "\"setPoints\" : " + setPoints));
  }

  private Channel channel(String tag) {
    try (BookFile file = BookFile.openToRead(book, Clock.systemUTC())) {
      assertThat(file.problems()).isEmpty();
      return file.read().byTag(tag).orElseThrow();
    }
  }

  private List<ReferencePoint> points(String tag) {
    return channel(tag).calibration().points().points();
  }

  /** What comes is the thermistor's law, by its own equation and not through the circuit. */
  @Test
  void aThermistorIsReadWithAnOhmmeter() throws IOException {
    simulate("bath");
    Path plan = plan(draft("RW-T1", "ohm"), "[10, 25]");
    Console c =
        Console.run(
            "run", plan, "--book", book, "--bench", doors.get("control").asString(), "--json");
    assertThat(c.code()).as(c.err()).isZero();
    assertThat(c.err()).contains("Caution: Ohms: unplug the sensor first.");
    assertThat(channel("RW-T1").calibration().points().raw()).isEqualTo(RawUnit.OHMS);
    assertThat(points("RW-T1")).hasSize(3);
    for (ReferencePoint p : points("RW-T1")) {
      double ohms = 10020 * Math.exp(3858 * (1 / (p.applied().number() + 273.15) - 1 / 298.15));
      assertThat(p.mean()).isCloseTo(ohms, within(0.002 * ohms));
      assertThat(p.counts()).isTrue();
    }
    // What the circuit does and what the sensor does alone are not put together.
    Path volts = plan(draft("RW-T1", "V"), "[10, 25]");
    Console refused = Console.run("run", volts, "--book", book);
    assertThat(refused.code()).isEqualTo(NockingCli.BAD_INPUT);
    assertThat(refused.err()).contains("RW-T1 has points in ohms, and this run reads volts");
    assertThat(points("RW-T1")).hasSize(3);
    // Out and in again they are ohms.
    Path csv = folder.resolve("points.csv");
    assertThat(Console.run("export", book, "RW-T1", "--out", csv).code()).isZero();
    assertThat(Console.run("import", csv, "--book", book, "--channel", "RW-T1").out())
        .contains("all 3 points are there already");
  }

  @Test
  void aLoopIsReadWithAnAmmeter() throws IOException {
    simulate("tank");
    Console ohms = draft("HD-L1", "ohm");
    assertThat(ohms.code()).isEqualTo(NockingCli.BAD_INPUT);
    assertThat(ohms.err()).contains("HD-L1 cannot be read in ohms");
    Path plan = plan(draft("HD-L1", "mA"), "[0, 2]");
    Console c =
        Console.run(
            "run", plan, "--book", book, "--bench", doors.get("control").asString(), "--json");
    assertThat(c.code()).as(c.err()).isZero();
    assertThat(c.err()).contains("Caution: Loop current: switch the loop's supply off");
    for (ReferencePoint p : points("HD-L1")) {
      assertThat(p.mean()).isCloseTo(4.02 + 3.996 * p.applied().number(), within(0.02));
    }
    // A current is read in the loop, and nowhere else.
    assertThat(Console.run("run", wrong(plan), "--book", book).err())
        .contains(
            "HD-L1 is read in milliamperes, and Meter at HD-L1 stands at: signal at the receiver");
  }

  /** The plan with its meter at the converter. */
  private Path wrong(Path plan) throws IOException {
    String text = Files.readString(plan);
    int at = text.indexOf("\"place\" : \"\"");
    return Files.writeString(
        folder.resolve("wrong.json"),
        text.substring(0, at) + "\"place\" : \"receiver\"" + text.substring(at + 12));
  }

  /** Kilo-ohms in a file are ohms; the check says what it is of. */
  @Test
  void aFileIsInTheUnitThatItSays() throws IOException {
    Path points =
        Files.writeString(
            folder.resolve("p.csv"), "T [°C],R [kΩ]\n0,33.1\n10,19.9\n20,12.5\n30,8.1\n");
    assertThat(Console.run("import", points, "--book", book, "--channel", "RW-T1").code()).isZero();
    assertThat(channel("RW-T1").calibration().points().raw()).isEqualTo(RawUnit.OHMS);
    assertThat(points("RW-T1").get(1).mean()).isCloseTo(19900, within(1e-9));

    Path check =
        Files.writeString(folder.resolve("c.csv"), "level [m],I [A]\n1,0.00802\n3,0.0161\n");
    Console c = Console.run("check", book, "HD-L1", "--measured", check, "--json");
    assertThat(c.code()).isEqualTo(NockingCli.FAIL);
    JsonNode rows = c.json().get("points");
    assertThat(rows.get(0).get("error").asDouble()).isCloseTo(0.005, within(1e-9));
    assertThat(rows.get(0).get("verdict").asString()).isEqualTo("pass");
    assertThat(rows.get(1).get("error").asDouble()).isCloseTo(0.025, within(1e-9));
    assertThat(c.json().get("says").get(0).asString()).contains("of the sensor alone");

    // A table counts in the unit of its axis, whatever prefix its file has.
    Path millivolts =
        Files.writeString(folder.resolve("m.csv"), "U (mV),T [°C]\n150,15\n250,5\n320,0\n");
    Path table = folder.resolve("t.csv");
    assertThat(Console.run("table", millivolts, "--cells", "2", "--out", table).code()).isZero();
    assertThat(Files.readString(table)).startsWith("raw,out\nV,°C\n0.150").contains("\n0.320");
    Path loop = Files.writeString(folder.resolve("l.csv"), "I (A),h [m]\n0.004,0\n0.02,4\n");
    assertThat(Console.run("table", loop, "--cells", "2", "--out", table, "--force").code())
        .isZero();
    assertThat(Files.readString(table)).startsWith("raw,out\nmA,m\n4.0");
  }

  /** The design of a channel is judged by ohms through its stages, in a file as in the book. */
  @Test
  void aFitGoesByTheStagesOfTheChannel() throws IOException {
    Path points =
        Files.writeString(
            folder.resolve("p.csv"), "T [°C],R [kΩ]\n0,33.1\n10,19.9\n20,12.5\n30,8.1\n");
    Path json = folder.resolve("RW-T1.json");
    Console c = Console.run("fit", points, "--channel", json, "--model", "poly:2", "--json");
    assertThat(c.code()).as(c.err()).isZero();
    assertThat(Console.run("import", points, "--book", book, "--channel", "RW-T1").code()).isZero();
    Console inBook =
        Console.run("fit", "--book", book, "--of", "RW-T1", "--model", "poly:2", "--json");
    // The file has its design judged beside it.
    assertThat(c.json().get("models").get(1)).isEqualTo(inBook.json().get("models").get(0));
    Console loop = Console.run("fit", points, "--channel", folder.resolve("HD-L1.json"));
    assertThat(loop.code()).isEqualTo(NockingCli.BAD_INPUT);
    assertThat(loop.err())
        .contains("is in ohms, and the sensor of HD-L1 gives nothing of the kind");
  }
}
