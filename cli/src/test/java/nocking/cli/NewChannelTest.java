package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
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
        "--sensor linear slope=20mV offset=0V at=0degC --range 0..50 --kind smell | 'smell' is not known"
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
