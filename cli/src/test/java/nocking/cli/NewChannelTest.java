package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.Hazard;
import nocking.channel.QuantityKind;
import nocking.element.Titled;
import nocking.quantity.Unit;
import nocking.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** A channel from options, the table for the bench, another sensor, another range. */
class NewChannelTest {
  @TempDir Path folder;

  private Console made(Path out, String words) {
    var line = new ArrayList<Object>(List.of("new", "BL-P9"));
    line.addAll(List.of(words.split(" ")));
    line.addAll(List.of("--out", out));
    return Console.run(line.toArray());
  }

  private Path blower() {
    Path out = folder.resolve("blower.json");
    Console r =
        made(
            out,
            "--sensor ratiometric points=0kPa:8%,100kPa:92% supply=5V --stage divider upper=5k1"
                + " lower=10k --bits 12 --ref 3.3V --range 0..60 --tolerance 0.25");
    assertThat(r.err()).isEmpty();
    return out;
  }

  private Path sheet(String text) throws IOException {
    return Files.writeString(folder.resolve("sheet.txt"), text);
  }

  private static final String TWO_TYPES =
      "Supply 5 V\nOutput 0.5…4.5 V ratiometric\nType   P4   P10\nRange (bar)   0…4   0…10\n"
          + "Proof (bar)   8   20\n";

  /** A datasheet makes the channel, in the unit that is asked for. */
  @Test
  void aChannelIsMadeOfADatasheetsText() throws IOException {
    Path text = sheet(TWO_TYPES);
    Path out = folder.resolve("p10.json");
    Console r =
        Console.run(
            "new", "P", "--datasheet", text, "--type", "P10", "--unit", "kPa", "--out", out);
    assertThat(r.err()).isEmpty();
    Channel c = ChannelJson.readChannel(Files.readString(out), "p10.json");
    assertThat(c.definition().high().number()).isEqualTo(1000);
    assertThat(c.design().overload().proof().number()).isCloseTo(2000, within(1e-9));
    JsonNode read = Console.run("datasheet", text, "--json").json();
    assertThat(read.get("sensors").size()).isEqualTo(2);
    assertThat(read.get("lines").get(0).get("reading").asString()).isEqualTo("understood");
    Path bad = folder.resolve("x.json");
    for (String[] odd :
        new String[][] {
          {"--datasheet " + text, "several types, choose one: --type P4, P10"},
          {"--datasheet " + text + " --type P5", "has no type 'P5'; it has P4, P10"},
          {"--datasheet " + text + " --type P4 --unit °C", "the datasheet is in bar, read °C"},
          {"--range 0..9", "made of --sensor or of --datasheet, one of them"},
        }) {
      Console e = made(bad, odd[0]);
      assertThat(e.code()).isEqualTo(3);
      assertThat(e.err()).contains(odd[1]).hasLineCount(1);
      assertThat(bad).doesNotExist();
    }
    Console no = Console.run("datasheet", sheet("Output 0…5 V"));
    assertThat(no.code()).isEqualTo(1);
    assertThat(no.out()).contains("no sensor: no line says the range of the quantity");
  }

  /** What the receiver takes 0.26 V for, that stands behind 5k1 over 10k. */
  @Test
  void whatAReceiverBelievesIsSaid() {
    Path out = folder.resolve("b.json");
    assertThat(
            made(
                    out,
                    "--sensor ratiometric points=0kPa:8%,100kPa:92% supply=5V --stage divider"
                        + " upper=5k1 lower=10k --range 0..60 --stored 0.4:0,4.6:100 --display ..30")
                .err())
        .isEmpty();
    JsonNode r = Console.run("path", out, "--at", "0", "60", "--json").json();
    double low = (0.4 * 10 / 15.1 - 0.4) / 0.042;
    assertThat(r.get("points").get(0).get("display").asDouble()).isCloseTo(low, within(0.02));
    assertThat(r.get("points").get(1).get("display").asDouble()).isEqualTo(30);
    assertThat(r.get("points").get(1).get("reading").asDouble()).isCloseTo(60, within(0.03));
    assertThat(r.get("belief").get("worst").asDouble()).isCloseTo(30, within(1e-9));
    Console odd =
        made(folder.resolve("c.json"), "--sensor two-point points=0kPa:0V,9kPa:1V --stored 1:2:3");
    assertThat(odd.err()).contains("--stored: read '1:2:3', expected volts and reading");
  }

  /** A pressure is gauge until it is said to be absolute, before or behind its kind. */
  @Test
  void aPressureCanBeAbsolute() throws IOException {
    for (String kind :
        List.of("pressure", "gauge-pressure", "absolute-pressure", "Pressure-Absolute")) {
      Path out = folder.resolve("p.json");
      Files.deleteIfExists(out);
      Console r =
          made(out, "--sensor two-point points=0kPa:0V,100kPa:5V --bits 12 --ref 5 --kind " + kind);
      assertThat(r.code()).as(r.err()).isZero();
      Channel c = ChannelJson.readChannel(Files.readString(out), "p.json");
      boolean absolute = kind.toLowerCase(Locale.ROOT).contains("absolute");
      assertThat(c.definition().gauge()).as(kind).isEqualTo(!absolute);
      assertThat(c.definition().hazards()).as(kind).containsExactly(Hazard.PRESSURE);
    }
  }

  /** 0.08·5 V·10/15.1 and 0.584·5 V·10/15.1. */
  @Test
  void theChannelGivesWhatItsPartsGive() throws IOException {
    Channel c = ChannelJson.readChannel(Files.readString(blower()), "blower.json");
    assertThat(c.definition().kind()).isEqualTo(QuantityKind.PRESSURE);
    JsonNode points =
        Console.run("path", folder.resolve("blower.json"), "--at", "0", "60", "--json")
            .json()
            .get("points");
    assertThat(points.get(0).get("nodes").get(1).get("value").asDouble())
        .isCloseTo(0.4 * 10 / 15.1, within(1e-12));
    assertThat(points.get(1).get("nodes").get(1).get("value").asDouble())
        .isCloseTo(2.92 * 10 / 15.1, within(1e-12));
  }

  /** Every kind of stage can be said with every one of its keys. */
  @Test
  void everyStageIsReadFromItsKeys() {
    for (Stage example : Stage.kinds()) {
      var words = new ArrayList<String>();
      words.add(example.getClass().getAnnotation(JsonTypeName.class).value());
      example.fields().stream()
          .filter(f -> example.value(f) != null)
          .forEach(f -> words.add(f.symbol() + "=" + example.value(f).typed()));
      example.choices().forEach(c -> words.add(c.name() + "=" + titled(c.value())));
      assertThat(StageArguments.stages(words, Unit.ONE)).containsExactly(example);
    }
  }

  private static String titled(Enum<?> e) {
    return ((Titled) e).title();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "--sensor ntc-beta beta=3950 | TP1 carries a resistance, which a converter cannot read: insert a pull-up",
        "--sensor linear slope=20mV offset=0V at=0degC --stage divider upper=1k | divider needs lower=…",
        "--sensor linear slope=20mV offset=0V at=0degC --stage divide upper=1k | 'divide' is no stage; known are divider",
        "--sensor linear slope=20mV offset=0V at=0degC --stage divider top=1k | divider has no key 'top'; its keys are",
        "--sensor linear slope=20mV offset=0V at=0degC --stage divider upper=1V lower=2k | divider upper: ",
        "--sensor linear slope=20mV offset=0V at=0degC --range 50..0 | the working range must rise",
        "--sensor linear slope=20mV offset=0V at=0degC --range 0..50 --bits 99 | Bits",
        "--sensor linear slope=20mV offset=0V at=0degC --range 0..50 --kind smell | 'smell' is not known",
        "--sensor linear slope=20mV offset=0V at=0degC --range 0..50 --kind absolute-temperature | only a pressure in a unit of pressure is gauge or absolute"
      })
  void whatCannotBeMadeIsSaidAndNothingIsWritten(String words, String says) {
    Path out = folder.resolve("none.json");
    Console r = made(out, words);
    assertThat(r.code()).isEqualTo(NockingCli.BAD_INPUT);
    assertThat(r.err()).contains(says);
    assertThat(r.err().lines()).hasSize(1);
    assertThat(out).doesNotExist();
  }

  @Test
  void theTableForTheBenchHasARowForEachInput() {
    Path file = blower();
    List<String> lines = Console.run("path", file, "--csv").out().lines().toList();
    assertThat(lines).hasSize(2 + 11);
    assertThat(lines.get(0)).isEqualTo("input,TP1,TP2,raw,reading,error,measured,shown");
    assertThat(lines.get(1)).isEqualTo("kPa,V,V,counts,kPa,kPa,V,kPa");
    assertThat(lines.get(7)).startsWith("30,1.66000000,1.09933775,1364,").endsWith(",,");
    assertThat(Console.run("path", file, "--csv", "--at", "12", "13").out().lines()).hasSize(4);
    assertThat(Console.run("path", file, "--csv", "--json").code()).isEqualTo(NockingCli.BAD_INPUT);
  }

  /** 10 % at 0 kPa where 8 % was: 2 % of 84 % for 100 kPa. */
  @Test
  void anotherSensorReadsWhatTheOldEquationMakesOfIt() {
    JsonNode rows =
        Console.run(
                "swap",
                blower(),
                "--sensor",
                "ratiometric",
                "points=0kPa:10%,100kPa:90%",
                "supply=5V",
                "--json")
            .json()
            .get("rows");
    assertThat(rows.get(0).get("error").asDouble()).isCloseTo(100 * 2.0 / 84, within(1e-9));
  }

  @Test
  void theLeastSpanThatHoldsTheRangeFits() {
    Console r =
        Console.run("ranges", blower(), "--of", "0..50", "0..60", "0..100", "--percent", "0.1");
    assertThat(r.code()).isZero();
    assertThat(r.out()).containsPattern("0…50 .* saturates").containsPattern("0…60 .* fits");
    assertThat(Console.run("ranges", folder.resolve("blower.json"), "--of", "0..50").code())
        .isEqualTo(NockingCli.FAIL);
  }
}
