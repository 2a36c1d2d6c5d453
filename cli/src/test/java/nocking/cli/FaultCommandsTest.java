package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.demo.Hatchery;
import nocking.prior.FaultKind;
import nocking.prior.PriorWeights;
import nocking.wiring.Meter;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** Faults, diagnosis and bands from the command line. */
class FaultCommandsTest {
  private static final Book BOOK = Hatchery.book(Hatchery.SEED);

  @TempDir Path folder;
  private Path cards;

  @BeforeEach
  void exportBook() throws IOException {
    cards = folder.resolve("book.json");
    Files.writeString(cards, ChannelJson.write(BOOK));
  }

  private Path channel(String tag) throws IOException {
    Path file = folder.resolve(tag + ".json");
    Files.writeString(file, ChannelJson.write(BOOK.byTag(tag).orElseThrow()));
    return file;
  }

  private Path file(String name, String content) throws IOException {
    Path file = folder.resolve(name);
    Files.writeString(file, content);
    return file;
  }

  private static JsonNode named(JsonNode list, String name) {
    for (JsonNode n : list) if (n.get("name").asString().equals(name)) return n;
    throw new AssertionError("no " + name + " in " + list);
  }

  @Test
  void everyChannelHasItsMatrix() throws IOException {
    for (Channel c : BOOK.channels()) {
      JsonNode m = Console.run("faults", channel(c.tag()), "--cards", cards, "--json").json();
      assertThat(m.get("faults").size()).as(c.tag()).isGreaterThan(10);
      JsonNode open = named(m.get("faults"), "signal wire open");
      assertThat(open.get("low").asDouble()).isLessThanOrEqualTo(open.get("high").asDouble());
      assertThat(m.get("normalBand").get("low").isNumber()).isTrue();
      assertThat(m.has("thresholds")).isTrue();
    }
  }

  @Test
  void floatingIsCalledFloating() throws IOException {
    JsonNode m = Console.run("faults", channel("FH-W1"), "--json").json();
    JsonNode open = named(m.get("faults"), "signal wire open");
    assertThat(open.get("floating").asBoolean()).isTrue();
    assertThat(open.get("verdict").asString()).isEqualTo("floats");
    assertThat(Console.run("faults", channel("FH-W1")).out()).contains("floats");
    JsonNode blower = Console.run("faults", channel("BL-P1"), "--json").json();
    assertThat(named(blower.get("faults"), "supply wire open").get("confusedWith").toString())
        .contains("signal wire open");
    assertThat(blower.get("thresholds").get("low").asDouble()).isCloseTo(0.1, within(1e-12));
  }

  @Test
  void groundOffsetIsFoundByBothEnds() throws IOException {
    // 60 mV between the grounds lift the signal by 40 mV behind the divider: 1.43 kPa.
    Path seen =
        file(
            "seen.csv",
            """
            place,at,value
            display,30,31.4
            sensor,30,1.660V
            receiver,30,1.720V
            ground,30,60mV
            """);
    Console c =
        Console.run("diagnose", channel("BL-P1"), "--seen", seen, "--cards", cards, "--json");
    assertThat(c.code()).isZero();
    JsonNode first = c.json().get("explanations").get(0);
    assertThat(first.get("name").asString()).startsWith("ground offset +60 mV");
    assertThat(first.get("probability").asDouble()).isGreaterThan(0.4);
    assertThat(first.get("expected").size()).isEqualTo(4);
    assertThat(first.get("observed").get(1).asDouble()).isEqualTo(1.66);
    assertThat(c.json().has("nextMeasurement")).isTrue();
  }

  /**
   * What the bench knows of its plant goes out with the book, and counts on the command line too.
   */
  @Test
  void weightsAndMeterOfABookCount() throws IOException {
    Path seen = file("seen.csv", "place,at,value\nreceiver,30,1.720V\nsensor,30,1.660V\n");
    PriorWeights known =
        PriorWeights.USUAL
            .withWeight(FaultKind.GROUND_OFFSET, 0)
            .withMeter(new Meter(50, 2, 6000, 10e6));
    Path bench = file("bench.json", ChannelJson.write(BOOK.withPriorWeights(known)));
    String usual = Console.run("diagnose", channel("BL-P1"), "--seen", seen).out();
    assertThat(usual).startsWith("Ground offset");
    Path bl = channel("BL-P1");
    Console own = Console.run("diagnose", bl, "--seen", seen, "--cards", bench);
    assertThat(own.out()).doesNotContain("Ground offset");
    // So poor a meter cannot tell 60 mV from nothing; the one of the command line can.
    assertThat(own.out()).startsWith("Nothing seen so far is wrong");
    Console better =
        Console.run("diagnose", bl, "--seen", seen, "--cards", bench, "--percent", "0.5");
    assertThat(better.out()).doesNotContain("Nothing seen so far is wrong");
  }

  @Test
  void whatNothingExplainsIsSaid() throws IOException {
    Path seen =
        file("seen.csv", "place,at,value\nsupply-sensor,30,5.0\nsensor,30,1.66\nreceiver,30,9.9\n");
    Console c = Console.run("diagnose", channel("BL-P1"), "--seen", seen);
    assertThat(c.code()).isEqualTo(1);
    assertThat(c.out()).startsWith("None of these faults explains what was seen");
  }

  @Test
  void aProposedMeasurementHasItsCautionBesideIt() throws IOException {
    Path seen = file("seen.csv", "place,at,value\ndisplay,230,180\n");
    Console mains = Console.run("diagnose", channel("AE-V1"), "--seen", seen);
    assertThat(mains.out())
        .contains("Caution: Live: one probe at a time")
        .contains("Mains: everything behind a bare divider may be live")
        .contains("Stored charge");
    Path low = file("low.csv", "place,at,value\ndisplay,30,3\n");
    assertThat(Console.run("diagnose", channel("BL-P1"), "--seen", low).out())
        .contains("Pressure: bleed the line before you open a fitting.");
  }

  /** 60 mV in the ground, and a display that shows 31.4 as 3.1. */
  @Test
  void twoFaultsAtOnceAreNamed() throws IOException {
    Path seen =
        file(
            "seen.csv",
            "place,at,value\ndisplay,30,3.1\nreceiver,30,1.720V\nsensor,30,1.660V\n"
                + "ground,30,0.060V\nTP2,30,1.139V\n");
    Console c = Console.run("diagnose", channel("BL-P1"), "--seen", seen);
    assertThat(c.code()).isEqualTo(1);
    assertThat(c.out())
        .contains("Two faults at once explain it: decimal point slipped: reads ÷10, and one of");
    Console json = Console.run("diagnose", channel("BL-P1"), "--seen", seen, "--json");
    assertThat(json.json().at("/twoFaults/common").asString()).startsWith("decimal point slipped");
    assertThat(json.json().at("/twoFaults/beside/0").asString()).isEqualTo("ground offset");
  }

  @Test
  void badRowsAreNamed() throws IOException {
    Path sluice = channel("SG-P1");
    Path place = file("a.csv", "place,at,value\ndisplay,0,2.7\nTP7,0,4.4\n");
    assertThat(Console.run("diagnose", sluice, "--seen", place).err())
        .startsWith("nocking: a.csv, row 3: this channel has no place 'TP7'; it has display,");
    Path value = file("b.csv", "place,at,value\nreceiver,0,4.4kPa\n");
    Console bad = Console.run("diagnose", sluice, "--seen", value);
    assertThat(bad.code()).isEqualTo(3);
    assertThat(bad.err()).startsWith("nocking: b.csv, row 2, column value: ");
    Path empty = file("c.csv", "place,at,value\n");
    assertThat(Console.run("diagnose", sluice, "--seen", empty).code()).isEqualTo(3);
    Path input = file("i.csv", "place,at,value\nreceiver,-500,4.4\n");
    assertThat(Console.run("diagnose", sluice, "--seen", input).err())
        .isEqualTo("nocking: i.csv, row 2: the input reads -500, expected -10 … 110 %.\n");
    Path huge = file("h.csv", "place,at,value\ndisplay,50,1e308\n");
    assertThat(Console.run("diagnose", sluice, "--seen", huge).code()).isEqualTo(1);
    Path columns = file("d.csv", "where,what\ndisplay,2\n");
    assertThat(Console.run("diagnose", sluice, "--seen", columns).err())
        .isEqualTo("nocking: d.csv has no column 'value'; it has where, what.\n");
  }

  @Test
  void windowsComeFromSettles() throws IOException {
    Path settles =
        file(
            "stations.csv",
            """
            name,volts,direction
            drain,1210,up
            drain,1190,down
            raceway,1620,up
            raceway,1580,down
            bypass,2010,up
            bypass,1990,down
            """
                .replace("direction\n", "direction\n,mV,\n"));
    JsonNode b =
        Console.run("bands", settles, "--lever", "60mm", "--turn", "100deg", "--json").json();
    assertThat(b.get("positions").get(1).get("low").asDouble()).isCloseTo(1.42, within(1e-9));
    assertThat(b.get("suggestedHalf").asDouble()).isCloseTo(0.18, within(1e-9));
    assertThat(b.get("findings").get(0).get("kind").asString()).isEqualTo("travel");
    Path overlap = file("o.csv", "name,centre,half\na,1,0.4\nb,1.5,0.4\n");
    Console c = Console.run("bands", overlap, "--range", "0..3V");
    assertThat(c.code()).isEqualTo(1);
    assertThat(c.out()).contains("the windows of a and b overlap by 300 mV");
    Path way = file("w.csv", "name,volts,direction\na,1,sideways\n");
    assertThat(Console.run("bands", way).err())
        .isEqualTo(
            "nocking: w.csv, row 2, column direction: read 'sideways', expected up or down.\n");
    assertThat(Console.run("bands", overlap, "--range", "3..0").code()).isEqualTo(3);
  }

  /** Both sources or neither; nothing is replaced unless that is said. */
  @Test
  void selectorIsWrittenAsADecoder() throws IOException {
    Path file = folder.resolve("diverter.csv");
    Files.writeString(file, "name,volts\n,V\nLeft,0.5\nMid,2.5\nRight,4.5\n");
    Console first = Console.run("bands", file, "--c", folder, "--bits", "10", "--dwell", "50ms");
    assertThat(first.code()).isZero();
    assertThat(folder.resolve("diverter_decoder.h")).content().contains("DIVERTER_DWELL_MS 50U");
    assertThat(folder.resolve("diverter_decoder.py")).content().contains("DWELL_MS = 50");
    Files.delete(folder.resolve("diverter_decoder.h"));
    Console again = Console.run("bands", file, "--c", folder);
    assertThat(again.code()).isEqualTo(NockingCli.OUTSIDE);
    assertThat(again.err()).contains("diverter_decoder.py exists already");
    assertThat(folder.resolve("diverter_decoder.h")).doesNotExist();
    assertThat(Console.run("bands", file, "--c", folder, "--force").code()).isZero();
    assertThat(Console.run("bands", file, "--c", folder, "--force", "--bits", "99").err())
        .contains("Bits (N) must be at most 24; read 99");
    assertThat(Console.run("bands", file, "--c", folder, "--force", "--range", "1V..5V").err())
        .contains("begins at 0 V");
  }
}
