package nocking.firmware;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import nocking.points.RawUnit;
import nocking.quantity.Span;
import nocking.table.DisplayLimits;
import nocking.table.LinearTable;
import nocking.wiring.Thresholds;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The thresholds in a generated header, asked for every code by a compiled program. */
class FaultLimitsInCodeTest {
  @TempDir Path folder;

  private static String header(Thresholds limits) {
    LinearTable t = LinearTable.equalSteps(x -> x / 40, new Span(330, 3700), 9, 0, 2);
    var source =
        new TableSource(
            "sg_p1", "SG-P1 Sluice gate", "%", RawUnit.COUNTS, false, 0, 2, limits, null);
    return source.header(t, t.against(x -> x / 40, true));
  }

  private static List<String> run(String... command) throws IOException, InterruptedException {
    Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
    List<String> lines = new String(p.getInputStream().readAllBytes()).lines().toList();
    assertThat(p.waitFor()).as("%s: %s", String.join(" ", command), lines).isZero();
    return lines;
  }

  private static boolean compilerIsThere() {
    try {
      return new ProcessBuilder("cc", "--version").redirectErrorStream(true).start().waitFor() == 0;
    } catch (IOException | InterruptedException e) {
      return false;
    }
  }

  @Test
  void codesBeyond32BitsKeepTheirValueInC() throws IOException, InterruptedException {
    assumeThat(compilerIsThere()).as("a C compiler").isTrue();
    LinearTable t = LinearTable.equalSteps(x -> x / 1e6, new Span(0, 4294967295.0), 4, 0, 3);
    var wide = new TableSource("wide", "Wide", "V", RawUnit.COUNTS, false, 0, 3, null, null);
    Files.writeString(folder.resolve("t.h"), wide.header(t, t.against(x -> x / 1e6, false)));
    Path source = folder.resolve("main.c");
    Files.writeString(
        source,
        """
        #include <stdio.h>
        #include "t.h"
        int main(void)
        {
            (void)wide_out;
            for (int i = 0; i < WIDE_CELLS; i++) printf("%lld\\n", (long long)wide_raw[i]);
            return 0;
        }
        """);
    Path binary = folder.resolve("main");
    run("cc", "-std=c99", "-Wall", "-Werror", "-o", binary.toString(), source.toString());
    assertThat(run(binary.toString()).getLast()).isEqualTo("4294967295");
  }

  @Test
  void everyCodeBeyondTheLimitsIsAFaultAndNoOther() throws IOException, InterruptedException {
    assumeThat(compilerIsThere()).as("a C compiler").isTrue();
    Files.writeString(folder.resolve("t.h"), header(new Thresholds(v(139), v(3932))));
    Path source = folder.resolve("main.c");
    Files.writeString(
        source,
        """
        #include <stdio.h>
        #include "t.h"
        int main(void)
        {
            (void)sg_p1_raw; (void)sg_p1_out;
            for (int32_t raw = 0; raw < 4096; raw++) printf("%d\\n", sg_p1_fault(raw));
            return 0;
        }
        """);
    Path binary = folder.resolve("main");
    run("cc", "-std=c99", "-Wall", "-Werror", "-o", binary.toString(), source.toString());
    List<String> lines = run(binary.toString());
    assertThat(lines).hasSize(4096);
    for (int raw = 0; raw < lines.size(); raw++) {
      assertThat(lines.get(raw)).as("code %d", raw).isEqualTo(raw < 139 || raw > 3932 ? "1" : "0");
    }
  }

  /** A display that stands still is the same in C as in the window. */
  @Test
  void theDisplayStandsStillInCodeToo() throws IOException, InterruptedException {
    assumeThat(compilerIsThere()).as("a C compiler").isTrue();
    var limits = new DisplayLimits(v(-5.5), v(80));
    LinearTable t = LinearTable.equalSteps(x -> x / 40, new Span(330, 3700), 9, 0, 2);
    var shown = new TableSource("d", "Display", "%", RawUnit.COUNTS, false, 0, 2, null, limits);
    Files.writeString(folder.resolve("t.h"), shown.header(t, t.against(x -> x / 40, true)));
    Path source = folder.resolve("main.c");
    Files.writeString(
        source,
        """
        #include <stdio.h>
        #include "t.h"
        int main(void)
        {
            (void)d_raw; (void)d_out;
            for (int i = -200; i <= 200; i++) printf("%.17g\\n", d_display(i / 2.0));
            return 0;
        }
        """);
    Path binary = folder.resolve("main");
    run("cc", "-std=c99", "-Wall", "-Werror", "-o", binary.toString(), source.toString());
    List<String> lines = run(binary.toString());
    for (int i = -200; i <= 200; i++) {
      assertThat(Double.parseDouble(lines.get(i + 200))).isEqualTo(limits.shown(i / 2.0));
    }
  }

  @Test
  void oneSidedLimitHasOneTest() {
    assertThat(header(new Thresholds(v(139), null)))
        .contains("#define SG_P1_FAULT_BELOW 139")
        .contains("{ return raw < SG_P1_FAULT_BELOW; }")
        .doesNotContain("ABOVE");
    assertThat(header(null)).doesNotContain("fault");
  }
}
