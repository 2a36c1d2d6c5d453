package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.demo.Hatchery;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** The commands {@code sensor}, {@code design} and {@code tolerance} as their contract has them. */
class SensorAndDesignTest {
  @TempDir Path folder;

  private static Console run(String line) {
    return Console.run((Object[]) line.split(" "));
  }

  /** Every model forward; then what it gave is put in again. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "linear offset=350mV at=0degC slope=20mV | 9 | °C | 0.53 | V",
        "two-point points=0kPa:0.4V,100kPa:4.6V | 30 | kPa | 1.66 | V",
        "ratiometric points=0kPa:8%,100kPa:92% supply=5V | 60kPa | kPa | 2.92 | V",
        "ntc-beta r0=10k t0=25degC beta=3950 | 25 | °C | 10000 | Ω",
        "ntc-steinhart points=0degC:32650,25degC:10k,100degC:680 | 100 | °C | 680 | Ω",
        "ntc-steinhart a=1.1e-3 b=2.4e-4 c=8e-8 | 20 | °C | 11579.771 | Ω",
        "rtd r0=100 | 100 | °C | 138.5055 | Ω",
        "rtd | -50 | °C | 80.3063 | Ω",
        "thermocouple type=K cj=0degC | 1000 | °C | 41.2756 | mV",
        "thermocouple | 300 | °C | 12.2086 | mV",
        "loop low=0 high=4m current=4mA..20mA | 1 | m | 8 | mA",
        "loop high=4m | 3 | m | 16 | mA",
        "potentiometer travel=0mm..220mm supply=5V resistance=5k start=0 end=1 | 110 | mm | 2.5 | V",
        "bridge full-scale=60kg sensitivity=2mV/V excitation=5V | 30 | kg | 5 | mV",
        "bipolar rest=2.5V slope=25mV | -40 | '' | 1.5 | V",
        "ac waveform=sine from=rms to=peak | 230 | V | 325.2691 | V",
        "formula f=0.35+0.02*x range=0..100 | 9 | '' | 0.53 | V"
      })
  void everyModelForwardAndBack(
      String model, String at, String unit, double electrical, String electricalUnit) {
    JsonNode p = run("sensor " + model + " --at " + at + " --json").json().get("points").get(0);
    assertThat(p.get("quantityUnit").asString()).isEqualTo(unit);
    assertThat(p.get("electricalUnit").asString()).isEqualTo(electricalUnit);
    double out = p.get("electrical").asDouble();
    assertThat(out).isCloseTo(electrical, within(1e-4 * Math.abs(electrical)));
    JsonNode back =
        run("sensor " + model + " --electrical " + out + " --json").json().get("points").get(0);
    double x = p.get("quantity").asDouble();
    assertThat(back.get("quantity").asDouble()).isCloseTo(x, within(1e-9 * (1 + Math.abs(x))));
  }

  @Test
  void tableIsReadWithItsUnits() throws IOException {
    Path file = folder.resolve("ntc.csv");
    Files.writeString(file, "T,R\ndegC,kohm\n0,32.65\n10,19.9\n25,10\n");
    JsonNode points =
        Console.run("sensor", "table", "file=" + file, "--at", "10", "50degF", "--json")
            .json()
            .get("points");
    assertThat(points.get(0).get("electrical").asDouble()).isCloseTo(19900, within(1e-9));
    assertThat(points.get(1).get("electrical").asDouble()).isCloseTo(19900, within(1e-6));
    assertThat(points.get(0).get("electricalUnit").asString()).isEqualTo("Ω");
    assertThat(
            Console.run("sensor", "table", "file=" + file, "--electrical", "15k", "--unit", "degF")
                .out())
        .contains("°F");
    Files.writeString(file, "T,R\ndegC,kohm\n0,32.65\n10,nineteen\n25,10\n");
    assertThat(Console.run("sensor", "table", "file=" + file, "--at", "10").err())
        .contains("ntc.csv row 4, column R:")
        .contains("nineteen");
  }

  @Test
  void dividerIsTheBestOfItsSeries() {
    JsonNode answer =
        run("design divider --in 5V --out 3.3V --total 10k..50k --series E24 --json").json();
    JsonNode first = answer.get("solutions").get(0);
    assertThat(answer.get("exact").asBoolean()).isTrue();
    assertThat(first.get("value").asDouble()).isCloseTo(0.66, within(0.003));
    double r1 = first.get("parts").get(0).get("value").asDouble();
    double r2 = first.get("parts").get(1).get("value").asDouble();
    assertThat(r2 / (r1 + r2)).isCloseTo(first.get("value").asDouble(), within(1e-12));
    assertThat(first.get("worstCase").asDouble()).isGreaterThan(0.02);
    assertThat(first.get("parts").get(0).get("network").asString()).isNotBlank();
  }

  @Test
  void drawerIsWhatThereIs() throws IOException {
    Path file = folder.resolve("drawer.csv");
    Files.writeString(file, "value,tolerance,power,quantity\n4k7,1%,250mW,1\n10k,1 %,0.25,2\n");
    Console two =
        Console.run("design", "divider", "--in", "5", "--out", "2.5", "--stock", file, "--json");
    assertThat(two.json().get("solutions").get(0).get("error").asDouble()).isZero();
    Console none =
        Console.run(
            "design", "divider", "--in", "5", "--out", "2.5", "--stock", file, "--total", "1..2");
    assertThat(none.code()).isEqualTo(NockingCli.FAIL);
    assertThat(none.out()).startsWith("Nothing does it");
    Files.writeString(file, "value,quantity\n4k7,1\nten,2\n");
    assertThat(Console.run("design", "divider", "--in", "5", "--out", "2", "--stock", file).err())
        .contains("drawer.csv row 3, column value");
    Files.writeString(file, "value,quantity\n4k7,1.5\n");
    assertThat(Console.run("design", "divider", "--in", "5", "--out", "2", "--stock", file).err())
        .contains("row 2, column quantity: read '1.5', expected a whole number");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "design combination --value 4k321 --series E12 --parts 3",
        "design extender --fits 30V --highest 50V --total 15.1k --series E96",
        "design gain-shift --in 0.2V..0.6V --out 0.3V..3V --ref 3.3V --series E96",
        "design pull-up ntc-beta r0=10k beta=3950 --range 0..25 --supply 3.3V --series E96",
        "design ends --track 5k --supply 5V --wiper 2%..98% --inside 0.5V..4.5V --series E24",
        "design blend --swing 40% --rest 2.5V..3V --supply 5V --source 1k --receiver 1M",
        "design string --value 1M --volts 325V --watts 0.25 --working 250V --series E24"
      })
  void everyDesignHasSolutionsBestFirst(String line) {
    JsonNode solutions = run(line + " --json").json().get("solutions");
    assertThat(solutions.size()).isPositive();
    double last = -1;
    for (JsonNode s : solutions) {
      if (!line.contains("pull-up")) {
        assertThat(Math.abs(s.get("error").asDouble())).isGreaterThanOrEqualTo(last);
        last = Math.abs(s.get("error").asDouble());
      }
      assertThat(s.get("parts").size()).isPositive();
      assertThat(s.get("worstCase").asDouble()).isGreaterThanOrEqualTo(last);
    }
    assertThat(run(line).out()).contains("worst case");
  }

  private Path channelFile(Channel c) throws IOException {
    Path file = folder.resolve(c.tag() + ".json");
    Files.writeString(file, ChannelJson.write(c));
    return file;
  }

  @Test
  void toleranceGivesThreeWaysBeforeAndAfter() throws IOException {
    Path file = channelFile(Hatchery.book(1).byTag("IN-T2").orElseThrow());
    Console c = Console.run("tolerance", file, "--draws", "20000", "--seed", "7", "--json");
    JsonNode points = c.json().get("points");
    assertThat(points.size()).isEqualTo(5);
    for (JsonNode p : points) {
      double rss = p.get("rss").asDouble();
      JsonNode drawn = p.get("monteCarlo");
      assertThat(drawn.get("sd").asDouble()).isCloseTo(rss, within(0.03 * rss));
      assertThat(p.get("worstCase").asDouble()).isGreaterThan(drawn.get("high").asDouble());
      assertThat(p.get("after").get("rss").asDouble()).isLessThanOrEqualTo(rss);
    }
    assertThat(points.get(0).get("ranking").get(0).get("parameter").asString()).isIn("Rf", "Rg");
    assertThat(Console.run("tolerance", file, "--draws", "20000", "--seed", "7", "--json").out())
        .isEqualTo(c.out());
    assertThat(Console.run("tolerance", file, "--draws", "1000").out())
        .contains("what matters most");
    assertThat(Console.run("tolerance", file, "--draws", "1").code()).isEqualTo(3);
  }

  /** Who orders the parts of a whole path finds its capacitor among them, in farads. */
  @Test
  void aFiltersCapacitorIsAmongTheParts() throws IOException {
    Path file = channelFile(Hatchery.book(1).byTag("RW-T1").orElseThrow());
    JsonNode found =
        Console.run("design", "path", file, "--supply", "3.3V", "--settling", "10ms", "--json")
            .json()
            .get("solutions");
    assertThat(found.size()).isPositive();
    for (JsonNode solution : found) {
      double farads = 0;
      for (JsonNode part : solution.get("parts")) {
        boolean capacitor = part.get("unit").asString().equals("F");
        if (capacitor) farads = part.get("value").asDouble();
        else assertThat(part.get("unit").asString()).isEqualTo("ohm");
      }
      // Behind some kilohms: between what 1 kΩ alone would leave and a hundredth of it.
      assertThat(farads).as(solution.get("path").asString()).isBetween(1e-9, 1e-6);
    }
  }

  /** Resistances and currents are nodes with their own unit. */
  @Test
  void pathNodesHaveTheirUnits() throws IOException {
    Path file = channelFile(Hatchery.book(1).byTag("RW-T1").orElseThrow());
    JsonNode nodes =
        Console.run("path", file, "--at", "25", "--json").json().get("points").get(0).get("nodes");
    assertThat(nodes.get(0).get("unit").asString()).isEqualTo("Ω");
    assertThat(nodes.get(0).get("value").asDouble()).isCloseTo(10000, within(5.0));
    assertThat(nodes.get(1).get("unit").asString()).isEqualTo("V");
    assertThat(Console.run("path", file, "--at", "60").err()).contains("lies outside");
    assertThat(Console.run("path", file, "--equation", "c").out()).contains("_table_inverse(");
    assertThat(Console.run("path", file, "--equation", "sheet").out()).contains("no sheet formula");
  }
}
