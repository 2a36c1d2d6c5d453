package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.assertj.core.api.Assertions.withinPercentage;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Locale;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.demo.Hatchery;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Isolated;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Every value keeps its unit to the very end, and what is a share of something says of what. */
@Isolated
class UnitsToTheEndTest {
  @TempDir Path folder;

  private Path file(String name, String text) throws IOException {
    return Files.writeString(folder.resolve(name), text);
  }

  @Test
  void theLoopsTestPointIsInAmperes() {
    var c = Console.run("check", Console.demoBook(folder), "HD-L1", "--json").json();
    assertThat(c.at("/points/0/expectedNodes/0/unit").asString()).isEqualTo("A");
    assertThat(c.at("/points/0/expectedNodes/1/unit").asString()).isEqualTo("V");
  }

  @Test
  void whatWasAppliedIsPrintedWhole() throws IOException {
    Path measured = file("m.csv", "applied,measured\nm,V\n1.2345,1.34\n");
    assertThat(
            Console.run("check", Console.demoBook(folder), "HD-L1", "--measured", measured).out())
        .contains("1.2345");
  }

  @Test
  void aToleranceInPercentIsOneOfTheSpan() throws IOException {
    Path points = file("p.csv", "applied,raw\npsi,V\n0,0.5\n75,2.5\n150,4.5\n");
    Console c = Console.run("fit", points, "--tolerance", "1%", "--json");
    assertThat(c.json().get("tolerance").asDouble()).isCloseTo(1.5, within(1e-12));
    assertThat(Console.run("fit", points, "--tolerance", "1%").out())
        .contains("Within 1%, that is 1.5.");
    Console wrong = Console.run("fit", points, "--tolerance", "1V");
    assertThat(wrong.code()).isEqualTo(3);
    assertThat(wrong.err()).startsWith("nocking: --tolerance: '1V' is a voltage");
  }

  @Test
  void whatLiesBeyondTheCardIsSaidToBeExtrapolated() {
    Console c =
        Console.run(
            "sensor", "two-point", "points=0kPa:0.5V,100kPa:4.5V", "--electrical", "4.4", "4.9");
    assertThat(c.out().lines().toList().get(0)).doesNotContain("extrapolated");
    assertThat(c.out().lines().toList().get(1)).contains("extrapolated beyond 0 … 100 kPa");
  }

  @Test
  void noPartOfAnExtenderStandsMoreThanItsWorkingVoltage() {
    Console c =
        Console.run(
            "design",
            "extender",
            "--fits",
            "30V",
            "--highest",
            "500V",
            "--total",
            "15.1k",
            "--working",
            "200V",
            "--json");
    assertThat(c.code()).isZero();
    for (var s : c.json().get("solutions")) {
      int parts = s.get("parts").get(0).get("network").asString().split("\\+").length;
      assertThat(470.0 / parts).isLessThanOrEqualTo(120 * 1.05);
    }
  }

  @Test
  void helpIsThereByName() {
    assertThat(Console.run("help").out()).startsWith("Usage: nocking");
    assertThat(Console.run("help", "fit").out()).startsWith("Usage: nocking fit");
    PrintStream terminal = System.err;
    var warnings = new ByteArrayOutputStream();
    System.setErr(new PrintStream(warnings, true, StandardCharsets.UTF_8));
    try {
      for (String command : NockingCli.commands()) {
        Console help = Console.run("help", command);
        assertThat(help.out())
            .as(command)
            .contains("Usage: nocking " + command)
            .doesNotContain("%%");
        assertThat(help.err()).isEmpty();
      }
    } finally {
      System.setErr(terminal);
    }
    assertThat(warnings.toString(StandardCharsets.UTF_8)).isEmpty();
  }

  @ParameterizedTest
  @CsvSource({
    "1, Torr, Pa, 133.322368",
    "1, hPa, Pa, 100",
    "1, cmH2O, Pa, 98.0665",
    "1, gf, mN, 9.80665",
    "1, oz, g, 28.349523125"
  })
  void lessCommonUnitsAreKnown(String value, String from, String to, double expected) {
    Console c = Console.run("convert", value, from, to, "--json");
    assertThat(c.code()).isZero();
    assertThat(c.json().get("value").asDouble()).isCloseTo(expected, withinPercentage(1e-6));
  }

  @Test
  void whatNatureForbidsIsRefusedAndWhatItAllowsIsNot() {
    assertThat(Console.run("convert", "-300", "degC", "K").code()).isEqualTo(3);
    assertThat(Console.run("convert", "-20", "psi", "kPa", "--gauge-to-absolute").code())
        .isEqualTo(3);
    assertThat(Console.run("sensor", "thermocouple", "type=K", "cj=-5degC", "--electrical", "1mV"))
        .matches(c -> c.code() == 0);
  }

  @Test
  void severalReadingColumnsCountWithTheirMean(@TempDir Path folder) throws IOException {
    Path file = folder.resolve("p.csv");
    Files.writeString(file, "q,r1,r2,r3\n0,1,2,3\n5,4,4,4\n10,5,6,7\n");
    Console c = Console.run("fit", file, "--y", "q", "--model", "ends", "--json");
    assertThat(c.err()).isEmpty();
    assertThat(c.out()).contains("2.5");
  }

  @Test
  void aMeasurementOnTheMainsIsProposedWithItsCaution(@TempDir Path folder) throws IOException {
    Path channel = folder.resolve("c.json");
    Files.writeString(
        channel, ChannelJson.write(Hatchery.book(Hatchery.SEED).byTag("AE-V1").orElseThrow()));
    Path seen = folder.resolve("seen.csv");
    Files.writeString(seen, "place,at,value\ndisplay,230,0\n");
    assertThat(Console.run("diagnose", channel, "--seen", seen).out())
        .containsIgnoringCase("caution");
  }

  @Test
  void namesOfASheetDifferInMoreThanTheirCase(@TempDir Path folder) throws IOException {
    Path file = folder.resolve("c.json");
    Channel blend = Hatchery.book(Hatchery.SEED).byTag("PD-Q1").orElseThrow();
    Channel blower = Hatchery.book(Hatchery.SEED).byTag("BL-P1").orElseThrow();
    // The sensor's ra and rb meet the tracks RA and RB.
    Files.writeString(
        file, ChannelJson.write(blower.design(d -> d.withStages(blend.design().stages()))));
    Console c = Console.run("path", file, "--equation", "sheet");
    assertThat(c.code()).isZero();
    Set<String> names =
        Pattern.compile("[A-Za-z_]\\w*")
            .matcher(c.out())
            .results()
            .map(MatchResult::group)
            .collect(Collectors.toSet());
    assertThat(names).hasSizeGreaterThan(4);
    assertThat(names.stream().map(n -> n.toLowerCase(Locale.ROOT))).doesNotHaveDuplicates();
  }

  /**
   * Three points of a pure beta curve, rounded as datasheets do, give a C of either sign near 0.
   */
  @ParameterizedTest
  @ValueSource(ints = {3000, 3380, 3435, 3950, 4100, 4500})
  void aThermistorWhoseThirdConstantIsARoundingIsTaken(int beta) {
    var points = new ArrayList<String>();
    for (int t : new int[] {0, 25, 70}) {
      double ohms = 10e3 * Math.exp(beta * (1 / (t + 273.15) - 1 / 298.15));
      points.add("%ddegC:%.4g".formatted(t, ohms));
    }
    Console c =
        Console.run("sensor", "ntc-steinhart", "points=" + String.join(",", points), "--at", "50");
    assertThat(c.code()).as(c.err()).isZero();
  }
}
