package nocking.firmware;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.RoundingMode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** One expression of integers against the polynomial itself, and against compiled C. */
class FixedPointTest {
  @TempDir Path folder;

  private record Made(FixedPoint fixed, DoubleUnaryOperator curve) {}

  /** A polynomial over the codes of 8 to 16 bits, of any sign and size that 32 bits can hold. */
  private static Made random(Random r) {
    int bits = 8 + r.nextInt(9);
    int first = r.nextInt(1 << (bits - 1));
    int last = first + 2 + r.nextInt((1 << bits) - first - 2);
    int degree = 1 + r.nextInt(5);
    double[] c = new double[degree + 1];
    double size = Math.pow(10, r.nextInt(4));
    for (int k = 0; k <= degree; k++) c[k] = size * r.nextGaussian();
    double middle = (first + last) / 2.0;
    double half = (last - first) / 2.0;
    DoubleUnaryOperator f =
        raw -> {
          double t = (raw - middle) / half;
          double y = 0;
          for (int k = degree; k >= 0; k--) y = y * t + c[k];
          return y;
        };
    return new Made(FixedPoint.of(f, degree, first, last, r.nextInt(4)), f);
  }

  /** At every code no further off than half a step and what was said. */
  @Test
  void everyCodeIsWithinWhatIsProven() {
    var r = new Random(7);
    for (int n = 0; n < 120; n++) {
      Made m = random(r);
      double step = Math.pow(10, -m.fixed.outDecimals());
      double worst = 0;
      for (int raw = m.fixed.first(); raw <= m.fixed.last(); raw++) {
        worst = Math.max(worst, Math.abs(m.fixed.steps(raw) * step - m.curve.applyAsDouble(raw)));
      }
      assertThat(worst).isLessThanOrEqualTo(m.fixed.worst() * (1 + 1e-12));
      assertThat(worst).as("half a step and a little").isLessThan(0.53 * step);
    }
  }

  /** The same in integers of any size: nothing overflows on the way. */
  @Test
  void noProductOverflows() {
    var r = new Random(8);
    for (int n = 0; n < 60; n++) {
      FixedPoint f = random(r).fixed;
      for (int k = 0; k < 200; k++) {
        int raw = f.first() + r.nextInt(f.last() - f.first() + 1);
        BigInteger a = BigInteger.valueOf(f.constants()[f.constants().length - 1]);
        for (int i = f.constants().length - 2; i >= 0; i--) {
          a = a.multiply(BigInteger.valueOf((long) raw - f.middle()));
          assertThat(a.bitLength()).isLessThan(f.narrow() ? 32 : 64);
          a =
              a.divide(BigInteger.ONE.shiftLeft(f.shift()))
                  .add(BigInteger.valueOf(f.constants()[i]));
          assertThat(a.bitLength()).isLessThan(f.narrow() ? 32 : 64);
        }
        BigInteger rounded =
            new BigDecimal(a)
                .divide(new BigDecimal(BigInteger.ONE.shiftLeft(f.places())))
                .add(new BigDecimal("0.5"))
                .setScale(0, RoundingMode.FLOOR)
                .toBigInteger();
        assertThat(BigInteger.valueOf(f.steps(raw))).isEqualTo(rounded);
      }
    }
  }

  /** Forty of them in one program, clean under all warnings and the sanitizer, at every code. */
  @Test
  void compiledExpressionsGiveWhatWasComputed() throws Exception {
    assumeThat(TableFirmwareTest.compiler()).as("a C compiler").isTrue();
    var r = new Random(9);
    var all = new ArrayList<FixedPoint>();
    var program = new StringBuilder("#include <stdio.h>\n");
    var main = new StringBuilder("int main(void)\n{\n    int32_t c;\n");
    for (int k = 0; k < 40; k++) {
      FixedPoint f = random(r).fixed;
      all.add(f);
      program.append(new FixedPointC("p" + k, f, List.of("Expression " + k), "kPa").source());
      main.append(
          """
              if (p%1$d_value_selftest() != 0) return 1;
              for (c = %2$d - 5; c <= %3$d + 5; c++) printf("%%ld\\n", (long)p%1$d_value(c));
          """
              .formatted(k, f.first(), f.last()));
    }
    Files.writeString(folder.resolve("all.c"), program.append(main).append("    return 0;\n}\n"));
    run(
        "cc",
        "-std=c99",
        "-O1",
        "-Wall",
        "-Wextra",
        "-Wconversion",
        "-Werror",
        "-fsanitize=undefined",
        "-fno-sanitize-recover=all",
        "-o",
        "all",
        "all.c");
    List<String> lines = run("./all").lines().toList();
    int at = 0;
    for (FixedPoint f : all) {
      for (int c = f.first() - 5; c <= f.last() + 5; c++) {
        assertThat(lines.get(at++)).isEqualTo(String.valueOf(f.steps(c)));
      }
    }
    assertThat(at).isEqualTo(lines.size());
  }

  private String run(String... command) throws Exception {
    Process p =
        new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true).start();
    String said = new String(p.getInputStream().readAllBytes());
    assertThat(p.waitFor()).as(said).isZero();
    return said;
  }

  @Test
  void whatIsNoPolynomialIsRefused() {
    assertThatThrownBy(() -> FixedPoint.of(Math::log, 2, 100, 4000, 2))
        .hasMessageMatching(
            "the curve is no polynomial of degree 2: at raw \\S+ it is off by \\S+ steps");
    assertThatThrownBy(() -> FixedPoint.of(x -> x, 7, 0, 4095, 2))
        .hasMessage("one expression is written for a degree of 1 to 6; read 7");
    assertThatThrownBy(() -> FixedPoint.of(x -> x, 1, 5, 5, 2))
        .hasMessage("raw codes from 5 to 5 are no range");
    assertThatThrownBy(() -> FixedPoint.of(x -> 1e15 * x, 1, 0, 4095, 2))
        .hasMessageContaining("do not fit 64 bits");
  }
}
