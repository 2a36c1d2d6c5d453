package nocking.path;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import nocking.Channels;
import nocking.algebra.Notation;
import nocking.analysis.Analysis;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Generated C and Python give what the tree gives, on the machine's own compiler and interpreter.
 */
class GeneratedEquationTest {
  private static final int CASES = 120;

  private record Case(long seed, String argument, double expected, double within) {}

  @TempDir Path folder;

  /** One program that holds many functions prints one result a line in full precision. */
  private List<Case> write(Notation form, StringBuilder program, StringBuilder calls) {
    var cases = new ArrayList<Case>();
    for (long seed = 0; seed < CASES; seed++) {
      SignalPath p = RandomPaths.of(seed).path();
      double x = RandomPaths.of(seed).range().at(0.37);
      double volts = p.output(x);
      program
          .append(
              GeneratedEquation.write(
                  form, "inv" + seed, "Vout", "x", p.inverse(), p.constantsOf(p.inverse())))
          .append('\n')
          .append(
              GeneratedEquation.write(
                  form, "fwd" + seed, "x", "Vout", p.forward(), p.constantsOf(p.forward())))
          .append('\n');
      // A table or a reference function is turned round to a billionth of its range.
      double within = p.inverse().graphs().isEmpty() ? 1e-12 : 1e-9;
      cases.add(
          new Case(
              seed, "inv" + seed + "(" + Notation.literal(volts) + ")", p.quantity(volts), within));
      cases.add(new Case(seed, "fwd" + seed + "(" + Notation.literal(x) + ")", volts, 1e-12));
    }
    for (Case c : cases) {
      calls.append(
          form == Notation.C
              ? "    printf(\"%%.17g\\n\", %s);\n".formatted(c.argument)
              : "print(repr(float(%s)))\n".formatted(c.argument));
    }
    return cases;
  }

  private static boolean present(String command) {
    try {
      return new ProcessBuilder(command, "--version").redirectErrorStream(true).start().waitFor()
          == 0;
    } catch (IOException | InterruptedException e) {
      return false;
    }
  }

  private static List<String> run(List<String> command) throws IOException, InterruptedException {
    Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
    List<String> lines = new String(p.getInputStream().readAllBytes()).lines().toList();
    assertThat(p.waitFor()).as("%s: %s", command, lines).isZero();
    return lines;
  }

  private static void agree(List<Case> cases, List<String> lines) {
    assertThat(lines).hasSameSizeAs(cases);
    for (int i = 0; i < lines.size(); i++) {
      double expected = cases.get(i).expected;
      double got = Double.parseDouble(lines.get(i));
      assertThat(Math.abs(got - expected) / Math.max(Math.abs(expected), 1e-9))
          .as("seed %d: %s", cases.get(i).seed, cases.get(i).argument)
          .isLessThanOrEqualTo(cases.get(i).within);
    }
  }

  @Test
  void compiledCAgrees() throws IOException, InterruptedException {
    assumeThat(present("cc")).as("a C compiler").isTrue();
    var program = new StringBuilder("#include <stdio.h>\n");
    var calls = new StringBuilder();
    List<Case> cases = write(Notation.C, program, calls);
    program.append("int main(void)\n{\n").append(calls).append("    return 0;\n}\n");
    Path source = folder.resolve("equations.c");
    Files.writeString(source, program);
    Path binary = folder.resolve("equations");
    run(
        List.of(
            "cc",
            "-std=c99",
            "-Wall",
            "-Werror",
            "-o",
            binary.toString(),
            source.toString(),
            "-lm"));
    agree(cases, run(List.of(binary.toString())));
  }

  @Test
  void pythonAgrees() throws IOException, InterruptedException {
    assumeThat(present("python3")).as("Python").isTrue();
    var program = new StringBuilder();
    var calls = new StringBuilder();
    List<Case> cases = write(Notation.PYTHON, program, calls);
    Path source = folder.resolve("equations.py");
    Files.writeString(source, program.append(calls));
    agree(cases, run(List.of("python3", source.toString())));
  }

  @Test
  void sheetNamesAreNoCellReferences() {
    SignalPath p = Analysis.of(Channels.incubator()).design().path().orElseThrow();
    String sheet =
        GeneratedEquation.write(
            Notation.SHEET, "f", "Vout", "x", p.inverse(), p.constantsOf(p.inverse()));
    assertThat(sheet).startsWith("=").contains("name\tvalue");
    assertThat(Notation.SHEET.name("R1")).isEqualTo("R1_");
    assertThat(Notation.SHEET.name("c")).isEqualTo("c_");
    assertThat(Notation.SHEET.name("TP2")).isEqualTo("TP2_");
    assertThat(Notation.SHEET.name("Vout")).isEqualTo("Vout");
  }
}
