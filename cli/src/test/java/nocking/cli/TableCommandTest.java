package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Tables from the command line: the smallest, the usual ones, and what is written of them. */
class TableCommandTest {
  @TempDir Path folder;

  /**
   * The screen's angle: a curved sensor on 12-bit codes, read 900 times with half a step of noise.
   */
  @BeforeEach
  void bench() throws IOException {
    var r = new Random(20260401);
    var text = new StringBuilder("raw,angle\ncounts,°\n");
    for (int i = 0; i < 900; i++) {
      int code = i == 0 ? 210 : i == 1 ? 3890 : 210 + r.nextInt(3681);
      text.append(code)
          .append(',')
          .append("%.2f".formatted(angle(code) + 0.02 * (r.nextDouble() - 0.5)));
      text.append('\n');
    }
    Files.writeString(data(), text);
    var sheet = new StringBuilder("ohm,t\nΩ,°C\n");
    for (int i = 0; i < 32; i++) {
      double t = 5 * i - 40;
      sheet.append(
          "%.0f,%.0f%n".formatted(10_000 * Math.exp(3950 * (1 / (t + 273.15) - 1 / 298.15)), t));
    }
    Files.writeString(thermistor(), sheet);
  }

  private static double angle(int code) {
    double t = (code - 210) / 3680.0;
    return 90 * (t + 0.12 * Math.sin(Math.PI * t) - 0.03 * Math.sin(3 * Math.PI * t));
  }

  private Path data() {
    return folder.resolve("sc-a1.csv");
  }

  private Path thermistor() {
    return folder.resolve("thermistor.csv");
  }

  @Test
  void theSmallestTableHoldsTheToleranceAndSaysThatItIsTheSmallest() {
    JsonNode t =
        Console.run("table", data(), "--tolerance", "1.5LSB", "--decimals", "1", "--json").json();
    assertThat(t.get("tolerance").asDouble()).isCloseTo(0.15, within(1e-12));
    assertThat(t.get("worstError").asDouble()).isLessThanOrEqualTo(0.15 + 1e-9);
    assertThat(t.get("proven").asBoolean()).isTrue();
    assertThat(t.get("count").asInt()).isBetween(8, 16);
    JsonNode equal = t.get("comparison").get(1);
    assertThat(equal.get("placement").asString()).isEqualTo("equal");
    assertThat(equal.get("worstError").asDouble()).isGreaterThan(0.15);
    Console text = Console.run("table", data(), "--tolerance", "1.5LSB", "--decimals", "1");
    assertThat(text.out())
        .contains("No table with fewer holds 0.15 °.")
        .contains("misses the tolerance");
    // So many cells: not worse than what was made for the tolerance.
    JsonNode dual =
        Console.run(
                "table", data(), "--cells", t.get("count").asString(), "--decimals", "1", "--json")
            .json();
    assertThat(dual.get("worstError").asDouble())
        .isLessThanOrEqualTo(t.get("worstError").asDouble());
  }

  /**
   * Thirty-two rows of a datasheet in sixteen cells: every school is compared, and none is quiet.
   */
  @Test
  void aTableThatMissesTheToleranceSaysSo() {
    Console c =
        Console.run(
            "table", thermistor(), "--cells", "16", "--placement", "equal", "--tolerance", "0.25");
    assertThat(c.code()).isEqualTo(NockingCli.FAIL);
    assertThat(c.out()).contains("It misses the tolerance of 0.25 °C by");
    Console best =
        Console.run("table", thermistor(), "--cells", "16", "--tolerance", "0.4", "--json");
    assertThat(best.code()).isZero();
    JsonNode all = best.json().get("comparison");
    assertThat(all).hasSizeGreaterThanOrEqualTo(4);
    for (JsonNode other : all) {
      assertThat(other.get("worstError").asDouble())
          .isGreaterThanOrEqualTo(best.json().get("worstError").asDouble() - 1e-12);
    }
    assertThat(Console.run("table", thermistor(), "--tolerance", "0.25").code()).isZero();
    Console none = Console.run("table", data(), "--tolerance", "0.004");
    assertThat(none.code()).isEqualTo(NockingCli.FAIL);
    assertThat(none.out()).startsWith("At raw ").contains("no table holds it");
  }

  @ParameterizedTest
  @CsvSource({"equal,9", "pow2,20", "every:4,", "at-points,", "every:1,"})
  void theUsualPlacements(String placement, Integer cells) {
    Console c =
        cells == null
            ? Console.run("table", thermistor(), "--placement", placement, "--json")
            : Console.run(
                "table", thermistor(), "--placement", placement, "--cells", cells, "--json");
    assertThat(c.code()).as(c.err()).isZero();
    assertThat(c.json().get("count").asInt()).isGreaterThan(4);
    assertThat(c.json().get("comparison").get(0).get("placement").asString()).isEqualTo(placement);
  }

  @Test
  void aFixedAxisIsTaken() throws IOException {
    Path axis = folder.resolve("axis.csv");
    Files.writeString(axis, "raw\n300\n1000\n3000\n");
    JsonNode t = Console.run("table", data(), "--placement", "fixed:" + axis, "--json").json();
    assertThat(t.get("breakpoints")).hasSize(3);
    assertThat(t.get("breakpoints").get(1).get("raw").asInt()).isEqualTo(1000);
    assertThat(t.get("breakpoints").get(1).get("out").asDouble())
        .isCloseTo(angle(1000), within(0.05));
  }

  /** A row with a slipped point is named before it becomes a cell. */
  @Test
  void aSlippedRowIsNamed() throws IOException {
    Path file = folder.resolve("slip.csv");
    Files.writeString(file, "raw,kPa\n0,10\n100,20\n200,30.1\n300,4.02\n400,50\n500,60\n");
    Console c = Console.run("table", file, "--cells", "4");
    assertThat(c.out())
        .startsWith("Row 5 reads 4.02 where its neighbours say about 40.05: a factor of 0.1.");
    assertThat(Console.run("table", data(), "--cells", "4", "--json").json().get("slips"))
        .isEmpty();
  }

  /** What is written: C, Python, columns, JSON and a workbook say the same. */
  @Test
  void allFormatsSayTheSame() throws Exception {
    Path xlsx = folder.resolve("t.xlsx");
    Path csv = folder.resolve("t.csv");
    Console c =
        Console.run(
            "table",
            data(),
            "--tolerance",
            "0.2",
            "--outside",
            "hold",
            "--raw-bits",
            "12",
            "--c",
            folder,
            "--python",
            folder,
            "--out",
            xlsx,
            "--json");
    assertThat(c.code()).as(c.err()).isZero();
    JsonNode cells = c.json().get("breakpoints");
    assertThat(Console.run("table", data(), "--tolerance", "0.2", "--out", csv).code()).isZero();
    assertThat(csv).content().startsWith("raw,out\ncounts,°\n210,").hasLineCount(2 + cells.size());
    try (var zip = new ZipFile(xlsx.toFile())) {
      var sheet = zip.getEntry("xl/worksheets/sheet1.xml");
      String xml = new String(zip.getInputStream(sheet).readAllBytes(), StandardCharsets.UTF_8);
      assertThat(xml).contains("<v>210").contains("MATCH(MIN(MAX($D$3,");
    }
    assertThat(folder.resolve("sc_a1_table.h"))
        .content()
        .contains("int32_t sc_a1_lookup(int32_t raw);")
        .contains("Raw codes 0 ... 4095")
        .contains("#define SC_A1_CRC 0x" + c.json().get("crc").asString());
    assumeThat(runs("cc") && runs("python3")).as("a C compiler and Python").isTrue();
    Path main = folder.resolve("main.c");
    Files.writeString(
        main,
        """
        #include <stdio.h>
        #include "sc_a1_table.h"
        int main(void) { int32_t c; for (c = -5; c < 4100; c++) printf("%d\\n", (int)sc_a1_lookup(c)); return sc_a1_selftest(); }
        """);
    String compiled =
        said(
                "cc",
                "-std=c99",
                "-Wall",
                "-Wextra",
                "-Werror",
                "main.c",
                "sc_a1_table.c",
                "-o",
                "main")
            + said("./main");
    String python =
        said(
            "python3",
            "-c",
            "from sc_a1_table import *\nfor c in range(-5, 4100): print(sc_a1_lookup(c))");
    assertThat(python).isEqualTo(compiled).hasLineCount(4105);
  }

  private static boolean runs(String program) throws InterruptedException {
    try {
      return new ProcessBuilder(program, "--version").redirectErrorStream(true).start().waitFor()
          == 0;
    } catch (IOException e) {
      return false;
    }
  }

  private String said(String... command) throws Exception {
    Process p =
        new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true).start();
    String said = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(p.waitFor()).as(said).isZero();
    return said;
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "--cells 1 | --cells: read 1, expected 2 to 1024",
        "--placement equal | a table in equal steps needs --cells N",
        "--decimals 3 | a table needs --tolerance T or --cells N",
        "--cells 8 --placement round | read placement 'round', expected optimal, equal, pow2, every:K, at-points or fixed:FILE",
        "--cells 8 --placement every:0 | read placement 'every:0', expected every:K with K from 1",
        "--cells 8 --outside never | read --outside 'never', expected extend, hold or fault",
        "--cells 8 --raw-bits 8 | does not fit 8 bits, 0 … 255",
        "--cells 8 --raw-unit bar | read --raw-unit 'bar', expected V, counts, ohm or mA",
        "--cells 8 --decimals 4 --out-bits 16 --outside hold | 16 bits with a sign hold",
        "--tolerance 5V | --tolerance",
        "--tolerance -1 | --tolerance: read -1, that is -1 here, expected more than 0",
      })
  void whatCannotBeMadeIsSaid(String options, String because) {
    Object[] words = ("table " + data() + " " + options).split(" ");
    Console c = Console.run(words);
    assertThat(c.code()).as(c.out()).isIn(NockingCli.BAD_INPUT, NockingCli.FAIL);
    assertThat(c.err() + c.out()).contains(because).doesNotContain("Exception");
  }

  /** So many cells as were asked for, or none; what has no cell any more is said. */
  @Test
  void cellsAreHonouredOrRefused() throws IOException {
    var rows = new StringBuilder("raw,true\nV,L\n");
    for (int i = 0; i < 32; i++) {
      rows.append("%.3f,%.2f%n".formatted(0.5 + 0.1 * i, 100 * Math.sqrt(i)));
    }
    Path data = folder.resolve("d.csv");
    Files.writeString(data, rows.toString());
    Console half =
        Console.run("table", data.toString(), "--cells", "16", "--placement", "every:2", "--json");
    assertThat(half.code()).as(half.err()).isZero();
    JsonNode said = JsonMapper.shared().readTree(half.out());
    assertThat(said.get("count").asInt()).isEqualTo(16);
    assertThat(said.get("dropped").asString())
        .startsWith("The last row, raw 3.6000, is none of every 2nd row and has no cell")
        .contains("behind raw 3.5000");
    for (String placement : List.of("every:2", "at-points")) {
      Console refused =
          Console.run("table", data.toString(), "--cells", "8", "--placement", placement);
      assertThat(refused.code()).isEqualTo(NockingCli.BAD_INPUT);
      assertThat(refused.err()).contains("--cells 8: the placement " + placement + " gives ");
    }
    Console steps = Console.run("table", data.toString(), "--tolerance", "2LSB", "--decimals", "2");
    assertThat(steps.out()).contains("2LSB = 0.02 L at 2 decimals.");
  }
}
