package nocking.firmware;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import nocking.quantity.QuantityException;
import nocking.table.Outside;
import nocking.table.StepTable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What the compiled C gives is what was computed beforehand, at every code. */
class TableFirmwareTest {
  private static final int[] BEYOND = {
    Integer.MIN_VALUE, Integer.MIN_VALUE + 1, -70_000, -1, 0, 1, 70_000, Integer.MAX_VALUE
  };

  @TempDir Path folder;

  /** A table of a random shape: rising, falling or neither, even steps now and then. */
  private static TableFirmware random(Random r, int k) {
    while (true) {
      int bits = 4 + r.nextInt(13);
      boolean signed = r.nextInt(3) == 0;
      int low = signed ? -(1 << (bits - 1)) : 0;
      int size = 1 << bits;
      var raw = new TreeSet<Integer>();
      int cells = 2 + r.nextInt(20);
      if (r.nextInt(4) == 0) {
        int step = 1 << r.nextInt(Math.max(1, bits - 3));
        int from = low + r.nextInt(size / 2);
        for (int i = 0; i < cells && from + i * step < low + size; i++) raw.add(from + i * step);
      } else {
        for (int i = 0; i < cells; i++) raw.add(low + r.nextInt(size));
      }
      // A table with codes below 0 has them in its first cell.
      if (raw.size() < 2 || signed != raw.first() < 0) continue;
      int outBits = 4 + r.nextInt(29);
      long reach = 1L << (outBits - 2);
      long[] out =
          raw.stream().mapToLong(i -> (long) (reach * (2 * r.nextDouble() - 1) * 0.9)).toArray();
      var table =
          new StepTable(0, r.nextInt(4), raw.stream().mapToInt(i -> i).toArray(), out, true);
      Outside outside = Outside.values()[k % 3];
      try {
        TableFirmware bare = TableFirmware.of(table, outside, bits, outBits, k % 5 == 4);
        return k % 4 == 1 ? bare.with(guards(r, low, size, out)) : bare;
      } catch (QuantityException e) {
        // Extended, its ends do not fit the width: another one.
        continue;
      }
    }
  }

  /** Limits of raw codes and outputs, each of them there or not. */
  private static Guards guards(Random r, int low, int size, long[] out) {
    int a = low + r.nextInt(size / 2);
    int b = low + size / 2 + r.nextInt(size / 2);
    long least = Math.min(out[0], out[1]);
    long most = Math.max(out[0], out[1]);
    return new Guards(
        r.nextInt(3) == 0 ? null : (Integer) a,
        r.nextInt(3) == 0 ? null : (Integer) b,
        r.nextInt(3) == 0 ? null : (Long) least,
        r.nextInt(3) == 0 ? null : (Long) most);
  }

  private static void run(Path folder, List<String> command) throws Exception {
    Process p =
        new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true).start();
    String said = new String(p.getInputStream().readAllBytes());
    assertThat(p.waitFor()).as(said).isZero();
  }

  static boolean compiler() {
    try {
      return new ProcessBuilder("cc", "--version").redirectErrorStream(true).start().waitFor() == 0;
    } catch (IOException | InterruptedException e) {
      return false;
    }
  }

  /**
   * Sixty tables in one program, clean under all warnings and the undefined-behaviour sanitizer.
   */
  @Test
  void compiledTablesGiveWhatWasComputed() throws Exception {
    assumeThat(compiler()).as("a C compiler").isTrue();
    var r = new Random(20260401);
    var tables = new ArrayList<TableFirmware>();
    var command =
        new ArrayList<>(
            List.of(
                "cc",
                "-std=c99",
                "-O1",
                "-Wall",
                "-Wextra",
                "-Wconversion",
                "-Wpedantic",
                "-Werror",
                "-fsanitize=undefined",
                "-fno-sanitize-recover=all",
                "-o",
                "all"));
    var main = new StringBuilder("#include <stdio.h>\n");
    var calls = new StringBuilder();
    for (int k = 0; k < 60; k++) {
      TableFirmware f = random(r, k);
      tables.add(f);
      String name = "t" + k;
      var c = new TableC(name, f, List.of("Table " + k), "kPa");
      Files.writeString(folder.resolve(name + "_table.h"), c.header());
      Files.writeString(folder.resolve(name + "_table.c"), c.source());
      command.add(name + "_table.c");
      main.append("#include \"%s_table.h\"\n".formatted(name));
      String type = f.real() ? "float" : "int32_t";
      calls.append(
          """
              { int32_t c; int32_t i; const int32_t b[8] = {INT32_MIN, INT32_MIN + 1, -70000, -1, 0, 1, 70000, INT32_MAX};
                %2$s v; if (%1$s_selftest() != 0) { fprintf(stderr, "%1$s: %%d\\n", %1$s_selftest()); return 1; }
                for (c = %3$d; c <= %4$d; c++) { v = %1$s_lookup(c); fwrite(&v, 4, 1, stdout); }
                for (i = 0; i < 8; i++) { v = %1$s_lookup(b[i]); fwrite(&v, 4, 1, stdout); } }
          """
              .formatted(name, type, f.leastRaw(), f.mostRaw()));
    }
    main.append("int main(void)\n{\n").append(calls).append("    return 0;\n}\n");
    Files.writeString(folder.resolve("main.c"), main);
    command.add("main.c");
    run(folder, command);
    run(folder, List.of("sh", "-c", "./all > out.bin"));
    var out =
        ByteBuffer.wrap(Files.readAllBytes(folder.resolve("out.bin")))
            .order(ByteOrder.nativeOrder());
    for (int k = 0; k < tables.size(); k++) {
      TableFirmware f = tables.get(k);
      for (int c = f.leastRaw(); c <= f.mostRaw(); c++) same(f, c, out, k);
      for (int c : BEYOND) same(f, c, out, k);
    }
    assertThat(out.hasRemaining()).isFalse();
  }

  private static void same(TableFirmware f, int code, ByteBuffer out, int k) {
    int given = out.getInt();
    int computed = f.real() ? Float.floatToRawIntBits(f.lookReal(code)) : f.look(code);
    boolean bothNaN =
        f.real() && Float.isNaN(Float.intBitsToFloat(given)) && Float.isNaN(f.lookReal(code));
    if (!bothNaN && given != computed)
      assertThat(given).as("table %d, code %d", k, code).isEqualTo(computed);
  }

  /** The nearest whole step, half up, by exact rational arithmetic. */
  @Test
  void resultsAreTheNearestSteps() {
    var table = new StepTable(0, 0, new int[] {0, 4, 10}, new long[] {0, -10, 5}, true);
    TableFirmware f = TableFirmware.of(table, Outside.HOLD, 8, 16, false);
    // −2.5 and −7.5 stand in the middle and go up; 4 + 6·2.5 …
    assertThat(new int[] {f.look(1), f.look(2), f.look(3)}).containsExactly(-2, -5, -7);
    assertThat(new int[] {f.look(5), f.look(6), f.look(7)}).containsExactly(-7, -5, -2);
    assertThat(f.look(255)).isEqualTo(5);
  }

  /** What does not fit is said before it becomes code; what needs 64 bits gets them. */
  @Test
  void widthsAreKept() {
    var table = new StepTable(0, 2, new int[] {0, 4000}, new long[] {0, 30_000}, true);
    assertThatThrownBy(() -> TableFirmware.of(table, Outside.EXTEND, 16, 16, false))
        .hasMessage(
            "at raw 65535 the table gives 4915.13, 491513 output steps: 16 bits with a sign hold"
                + " -32768 … 32767");
    assertThat(TableFirmware.of(table, Outside.HOLD, 16, 16, false).proof().narrow()).isTrue();
    assertThatThrownBy(() -> TableFirmware.of(table, Outside.HOLD, 10, 16, false))
        .hasMessage("raw step 4000 does not fit 10 bits, 0 … 1023");
    assertThatThrownBy(() -> TableFirmware.of(table, Outside.HOLD, 40, 16, false))
        .hasMessage("--raw-bits: read 40, expected 2 … 31");
    var wide = new StepTable(0, 0, new int[] {0, 60_000}, new long[] {0, 2_000_000_000}, true);
    TableFirmware f = TableFirmware.of(wide, Outside.HOLD, 16, 32, false);
    assertThat(f.proof().product()).isEqualTo(120_000_000_030_000L);
    assertThat(new TableC("w", f, List.of(), "l").source()).contains("int64_t product;");
    assertThat(Arrays.asList(f.look(60_000), f.look(0))).containsExactly(2_000_000_000, 0);
  }
}
