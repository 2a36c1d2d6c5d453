package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** The commands answer as the contract says, with the numbers that the job knows. */
class ContractTest {
  @TempDir Path folder;
  private Path book;

  @BeforeEach
  void demo() {
    book = Console.demoBook(folder);
  }

  private Path channelFile(String tag) {
    Path file = folder.resolve(tag + ".json");
    Console c = Console.run("export", book, tag, "--out", file);
    assertThat(c.err()).isEmpty();
    assertThat(c.code()).isZero();
    return file;
  }

  private Path resource(String name) throws IOException {
    Path copy = folder.resolve(name);
    try (var in = ContractTest.class.getResourceAsStream(name)) {
      Files.copy(in, copy);
    }
    return copy;
  }

  /** The list by which one command is found names each as the command names itself. */
  @Test
  void everyCommandAnswersToItsNameAlone() {
    assertThat(NockingCli.commands()).hasSizeGreaterThan(12).contains("help");
    for (String name : NockingCli.commands()) {
      var alone = Console.run(name, "--help");
      if (name.equals("help")) continue;
      assertThat(alone.out()).as(name).startsWith("Usage: nocking " + name + " ");
      assertThat(Console.run("help", name).out()).isEqualTo(alone.out());
    }
  }

  @ParameterizedTest
  @CsvSource({
    "25, psi, kPa, 172.36893233, kPa",
    "-40, degF, degC, -40, °C",
    "1, inHg, Pa, 3386.388640341, Pa",
    "101.325, kPa, psi, 14.69594878, psi",
    "300, K, degC, 26.85, °C",
    "2*4k7, ohm, kohm, 9.4, kΩ"
  })
  void convertsUnits(String value, String from, String to, double expected, String unit) {
    var c = Console.run("convert", value, from, to, "--json");
    assertThat(c.code()).isZero();
    assertThat(c.json().get("value").asDouble())
        .isCloseTo(expected, Percentage.withPercentage(1e-7));
    assertThat(c.json().get("unit").asString()).isEqualTo(unit);
  }

  @Test
  void gaugeBecomesAbsoluteByTheAmbientPressure() {
    assertThat(Console.run("convert", "0.2", "kPa", "kPa", "--gauge-to-absolute").out())
        .isEqualTo("101.525 kPa\n");
    assertThat(Console.run("convert", "100", "kPa", "kPa", "--absolute-to-gauge=98kPa").out())
        .isEqualTo("2 kPa\n");
    assertThat(Console.run("convert", "1", "V", "V", "--gauge-to-absolute").code()).isEqualTo(3);
  }

  @Test
  void sensorsGoBothWays() {
    String[] model = {"ratiometric", "points=0kPa:8%,100kPa:92%", "supply=5V"};
    JsonNode forward =
        Console.run("sensor", model[0], model[1], model[2], "--at", "60kPa", "--json").json();
    JsonNode point = forward.get("points").get(0);
    assertThat(point.get("electrical").asDouble()).isCloseTo(2.92, within(1e-12));
    assertThat(point.get("quantityUnit").asString()).isEqualTo("kPa");
    JsonNode inverse =
        Console.run("sensor", model[0], model[1], model[2], "--electrical", "2.92V", "--json")
            .json();
    assertThat(inverse.get("points").get(0).get("quantity").asDouble()).isCloseTo(60, within(1e-9));
    assertThat(
            Console.run(
                    "sensor", "linear", "offset=350mV", "at=0degC", "slope=20mV", "--at", "9", "-4")
                .out())
        .isEqualTo("9 °C   0.53 V\n-4 °C  0.27 V\n");
  }

  @Test
  void blowerManifoldReadsAsItsDatasheetSays() {
    JsonNode points =
        Console.run("path", channelFile("BL-P1"), "--at", "0", "30", "60", "100", "--json")
            .json()
            .get("points");
    double[][] expected = {
      {0.4, 0.26490, 328}, {1.66, 1.09934, 1364}, {2.92, 1.93377, 2400}, {4.6, 3.04636, 3781}
    };
    for (int i = 0; i < expected.length; i++) {
      JsonNode nodes = points.get(i).get("nodes");
      assertThat(nodes.get(0).get("value").asDouble()).isCloseTo(expected[i][0], within(1e-9));
      assertThat(nodes.get(1).get("value").asDouble()).isCloseTo(expected[i][1], within(5e-6));
      assertThat(points.get(i).get("raw").asInt()).isEqualTo((int) expected[i][2]);
    }
  }

  @Test
  void incubatorEquationPivotsAtNineDegrees() {
    var c = Console.run("path", channelFile("IN-T2"), "--json").json();
    assertThat(c.get("linear").get("slope").asDouble()).isCloseTo(3.7037, within(5e-5));
    assertThat(c.get("linear").get("intercept").asDouble()).isCloseTo(2.8889, within(5e-5));
    assertThat(c.get("linear").get("pivot").asDouble()).isCloseTo(9, within(1e-9));
    assertThat(c.get("equation").get("inverse").asString())
        .isEqualTo("T = ((Vout − Vr)·Rg/Rf + Vc − V0)/S");
  }

  @ParameterizedTest
  @ValueSource(strings = {"text", "latex", "c", "python", "sheet"})
  void equationIsPrintedInEveryForm(String form) {
    var c = Console.run("path", channelFile("IN-T2"), "--equation", form);
    assertThat(c.code()).isZero();
    assertThat(c.out()).containsAnyOf("Rf", "R_{f}").containsAnyOf("Vc", "V_{c}");
  }

  @Test
  void certifiedOzoneLineIsMetToNineDigits() throws IOException {
    JsonNode fit =
        Console.run(
                "fit",
                resource("ozone-monitor.csv"),
                "--x",
                "reference",
                "--y",
                "reading",
                "--model",
                "line",
                "--json")
            .json()
            .get("models")
            .get(0);
    JsonNode b = fit.get("coefficients");
    assertRelative(b.get(0).get("value"), -0.262323073774029);
    assertRelative(b.get(1).get("value"), 1.00211681802045);
    assertRelative(b.get(0).get("standardError"), 0.232818234301152);
    assertRelative(b.get(1).get("standardError"), 0.429796848199937e-3);
    assertRelative(fit.get("residualSd"), 0.884796396144373);
  }

  private static void assertRelative(JsonNode value, double certified) {
    double lre = -Math.log10(Math.abs(value.asDouble() - certified) / Math.abs(certified));
    assertThat(lre).as("log relative error of %s", value).isGreaterThanOrEqualTo(9);
  }

  @Test
  void tableHoldsEqualStepsOfTheLoadCell() throws IOException {
    Path csv = folder.resolve("cells.csv");
    var c =
        Console.run(
            "table",
            resource("load-cell.csv"),
            "--cells",
            "5",
            "--placement",
            "equal",
            "--out",
            csv,
            "--c",
            folder,
            "--json");
    assertThat(c.code()).isZero();
    JsonNode cells = c.json().get("breakpoints");
    assertThat(cells).hasSize(5);
    assertThat(cells.get(1).get("raw").asDouble()).isEqualTo(862500);
    assertThat(c.json().get("worstError").asDouble()).isLessThan(0.001);
    assertThat(csv).content().startsWith("raw,out\ncounts,in\n150000,0.1104\n862500,0.6299");
    assertThat(folder.resolve("load_cell_table.h"))
        .content()
        .contains("extern const int32_t load_cell_raw[LOAD_CELL_CELLS];");
    assertThat(
            Console.run("table", folder.resolve("load-cell.csv"), "--cells", "5", "--out", csv)
                .code())
        .as("nothing is written over an existing file")
        .isEqualTo(4);
  }

  @Test
  void checkFailsWithExitCodeOne() throws IOException {
    Path measured = folder.resolve("measured.csv");
    Files.writeString(measured, "applied,measured\n°C,V\n4,0.324\n9,1.710\n");
    var bad = Console.run("check", book, "IN-T2", "--measured", measured, "--json");
    assertThat(bad.code()).isEqualTo(1);
    assertThat(bad.json().get("verdict").asString()).isEqualTo("fail");
    assertThat(bad.json().get("points").get(0).get("verdict").asString()).isEqualTo("pass");
    assertThat(Console.run("check", book, "IN-T2").code()).isZero();
  }

  @Test
  void channelSurvivesExportAndImport() throws IOException {
    Path json = channelFile("OX-D1");
    Path other = folder.resolve("other.nocking");
    assertThat(Console.run("import", json, "--book", other).code()).isZero();
    Path again = folder.resolve("again.json");
    assertThat(Console.run("export", other, "OX-D1", "--out", again).code()).isZero();
    assertThat(again).hasSameTextualContentAs(json);
    assertThat(Console.run("import", json, "--book", other).code()).isEqualTo(3);
    assertThat(Console.run("book", "verify", other, "--json").json().get("ok").asBoolean())
        .isTrue();
  }

  @Test
  void pointsSurviveExportAndImport() {
    Path csv = folder.resolve("points.csv");
    assertThat(Console.run("export", book, "OX-D1", "--out", csv).code()).isZero();
    Path bare = folder.resolve("bare.csv");
    assertThat(Console.run("import", csv, "--book", book, "--channel", "GV-P1").err())
        .isEqualTo(
            "nocking: points.csv, column applied: its unit is mg/L, expected a length in mm.\n");
    assertThat(Console.run("import", csv, "--book", book, "--channel", "OX-D1", "--force").code())
        .isZero();
    assertThat(Console.run("export", book, "OX-D1", "--out", bare).code()).isZero();
    assertThat(bare).content().hasLineCount(2 + 5 + 5);
  }

  @ParameterizedTest
  @ValueSource(strings = {"certificate"})
  void laterCommandsSayThatTheyAreNotAvailable(String command) {
    var c = Console.run(command);
    assertThat(c.code()).isEqualTo(2);
    assertThat(c.err()).isEqualTo("nocking: %s is not available yet.\n".formatted(command));
    assertThat(Console.run("--help").out()).doesNotContain("  " + command);
  }

  /** The certified parabola of the load cell, from the command line. */
  @Test
  void everyModelIsUnderstood() throws IOException {
    Object cell = resource("load-cell.csv");
    JsonNode parabola =
        Console.run("fit", cell, "--model", "poly:2", "--x", "1", "--y", "2", "--json")
            .json()
            .get("models")
            .get(0);
    JsonNode b2 = parabola.get("coefficients").get(2);
    assertThat(b2.get("name").asString()).isEqualTo("b2");
    double certified = b2.get("value").asDouble() > 0 ? Double.NaN : -0.316081871345029e-14;
    assertThat(b2.get("value").asDouble() / certified).isCloseTo(1, within(1e-12));
    assertThat(b2.get("standardError").asDouble() / 0.486652849992036e-16)
        .isCloseTo(1, within(1e-12));
    for (String m :
        List.of("minimax", "minimax:3", "exp", "power", "log", "rational:1/1", "pwl", "pchip")) {
      Console c = Console.run("fit", cell, "--x", "2", "--y", "1", "--model", m);
      assertThat(c.code()).as(m + c.err()).isZero();
    }
    assertThat(Console.run("fit", cell, "--model", "qubic").err())
        .startsWith("nocking: 'qubic' is no model; known are line, line-zero, ends, minimax");
    assertThat(Console.run("nonsense").code()).isEqualTo(2);
  }

  @Test
  void weightsComeFromTheRows() throws IOException {
    Path points = folder.resolve("w.csv");
    Files.writeString(points, "p,U1,U2\n0,0.4,0.4002\n50,2.5,2.6\n100,4.6,4.6002\n");
    JsonNode even = Console.run("fit", points, "--model", "line", "--json").json();
    JsonNode sigma =
        Console.run("fit", points, "--model", "line", "--weights", "sigma", "--json").json();
    assertThat(even.get("models").get(0).get("worstAt").asDouble()).isEqualTo(50);
    // The point in the middle scatters: the line goes by the other two.
    assertThat(sigma.get("models").get(0).get("coefficients").get(1).get("value").asDouble())
        .isCloseTo(100 / 4.2, within(1e-3));
    assertThat(Console.run("fit", points, "--weights", "relative").err())
        .isEqualTo("nocking: w.csv, row 2: a quantity of 0 has no relative weight.\n");
    assertThat(Console.run("fit", points, "--weights", "heavy").err())
        .isEqualTo("nocking: read --weights 'heavy', expected equal, sigma or relative.\n");
    Path single = folder.resolve("one.csv");
    Files.writeString(single, "p,U\n0,0.4\n50,2.5\n100,4.6\n");
    assertThat(Console.run("fit", single, "--weights", "sigma").err())
        .contains("one.csv, row 2: weights by uncertainty need a column 'u'");
  }

  /** The design of a channel stands beside the models that were measured. */
  @Test
  void theDesignIsJudgedToo() throws IOException {
    Path points = folder.resolve("bl.csv");
    Files.writeString(points, "p,U\nkPa,V\n0,0.2\n30,1.02\n60,1.84\n");
    JsonNode all =
        Console.run("fit", points, "--channel", channelFile("BL-P1"), "--model", "line", "--json")
            .json();
    assertThat(all.get("models").get(0).get("model").asString()).isEqualTo("design");
    assertThat(all.get("tolerance").asDouble()).isPositive();
  }

  @Test
  void pathIsReadableWithoutJson() {
    Console c = Console.run("path", channelFile("IN-T2"), "--at", "9");
    assertThat(c.out())
        .startsWith("(1)  V1 = V0 + S·T    [Linear sensor]\n")
        .contains("(4)  T = ((Vout − Vr)·Rg/Rf + Vc − V0)/S    [solved for T]")
        .contains("T = 3.7037·Vout + 2.8889    pivot 9 at Vr = 1.65 V")
        .contains("9.00  TP1 530.000 mV  TP2 1.65000 V  raw 2048");
  }

  @Test
  void findingsAreThoseOfTheWindow() {
    JsonNode findings = Console.run("path", channelFile("BL-P1"), "--json").json().get("findings");
    assertThat(findings.get(0).get("rule").asString()).isEqualTo("point-slip");
    assertThat(findings.get(0).get("severity").asString()).isEqualTo("warning");
    assertThat(findings.get(0).get("stage").asString()).isEqualTo("collect");
    assertThat(findings).hasSize(3);
  }

  @Test
  void fitTellsTheModelsApart() throws IOException {
    Path points = folder.resolve("points.csv");
    Files.writeString(points, "p,U\nkPa,V\n0,0.40\n50,2.50\n100,4.60\n");
    JsonNode all = Console.run("fit", points, "--tolerance", "0.5", "--json").json();
    assertThat(all.get("models")).hasSizeGreaterThan(8);
    assertThat(all.get("recommended").asString())
        .as("both are exact here")
        .isIn("ends", "line", "minimax");
    assertThat(all.get("reason").asString()).startsWith("Simplest that is good enough");
    Console text = Console.run("fit", points, "--model", "line,ends");
    assertThat(text.out()).startsWith("model").contains("b1 = 23.80952381").hasLineCount(4);
    assertThat(
            Console.run("fit", points, "--x", "p", "--y", "U", "--model", "ends", "--json")
                .json()
                .get("models")
                .get(0)
                .get("coefficients")
                .get(1)
                .get("value")
                .asDouble())
        .isCloseTo(0.042, within(1e-12));
  }

  @Test
  void checkWithoutMeasurementsIsOpenAndTellsWhatToExpect() {
    JsonNode c = Console.run("check", book, "BL-P1", "--json").json();
    assertThat(c.get("verdict").asString()).isEqualTo("open");
    JsonNode top = c.get("points").get(2);
    assertThat(top.get("expectedRaw").asInt()).isEqualTo(2400);
    assertThat(top.get("expectedNodes").get(1).get("value").asDouble())
        .isCloseTo(1.93377, within(5e-6));
    assertThat(top.get("expectedReading").asDouble()).isCloseTo(60, within(0.015));
    assertThat(top.get("error").isNull()).isTrue();
  }

  @Test
  void wholeBookGoesOutAndComesInAgain() throws IOException {
    Path json = folder.resolve("book.json");
    Path other = folder.resolve("other.nocking");
    assertThat(Console.run("export", book, "--out", json).code()).isZero();
    assertThat(
            Console.run("import", json, "--book", other, "--json").json().get("channels").asInt())
        .isEqualTo(14);
    Path again = folder.resolve("again.json");
    assertThat(Console.run("export", other, "--out", again).code()).isZero();
    assertThat(again).hasSameTextualContentAs(json);
    assertThat(Console.run("import", json, "--book", other, "--force").err())
        .as("a locked channel is never replaced")
        .contains("IN-T2 is locked in");
  }

  @Test
  void helpNamesWhatThereIs() {
    String help = Console.run("--help").out();
    assertThat(help)
        .contains("convert", "sensor", "path", "fit", "table", "check", "export", "import", "book");
    assertThat(Console.run("fit", "--help").out()).contains("--tolerance", "rational:P/Q");
    assertThat(Console.run("book", "verify", "--help").out()).contains("BOOK");
    assertThat(Console.run("--version").out()).startsWith("Nocking ");
    assertThat(Console.run().code()).isEqualTo(2);
  }
}
