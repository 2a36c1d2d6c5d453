package nocking.book.exchange;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import nocking.firmware.SheetFormula;
import nocking.table.Outside;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/** A table as a workbook (ISO/IEC 29500): its cells, and the formula that looks up in them. */
public final class TableWorkbook {
  private static final int TOP = 2;

  private TableWorkbook() {}

  /**
   * @param raw column as the receiver wants it
   * @param out same length
   * @param rawDecimals digits behind the point that are shown
   */
  public static byte[] of(
      String rawUnit,
      String quantityUnit,
      double[] raw,
      double[] out,
      int rawDecimals,
      int outDecimals,
      Outside outside) {
    var bytes = new ByteArrayOutputStream();
    try (var book = new Workbook(bytes, "Nocking", "1.0")) {
      Worksheet s = book.newWorksheet("Table");
      s.value(0, 0, "raw");
      s.value(0, 1, "out");
      s.value(1, 0, rawUnit);
      s.value(1, 1, quantityUnit);
      for (int i = 0; i < raw.length; i++) {
        s.value(TOP + i, 0, raw[i]);
        s.value(TOP + i, 1, out[i]);
      }
      int last = TOP + raw.length;
      s.range(TOP, 0, last - 1, 0).style().format(format(rawDecimals)).set();
      s.range(TOP, 1, last - 1, 1).style().format(format(outDecimals)).set();
      s.value(0, 3, "raw to look up");
      s.value(0, 4, "out");
      s.value(TOP, 3, (raw[0] + raw[raw.length - 1]) / 2);
      boolean falls = raw[0] > raw[raw.length - 1];
      String raws = "$A$%d:$A$%d".formatted(TOP + 1, last);
      String outs = "$B$%d:$B$%d".formatted(TOP + 1, last);
      String look = "$D$%d".formatted(TOP + 1);
      s.formula(TOP, 4, SheetFormula.of(raws, outs, raw.length, look, falls, outside));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return bytes.toByteArray();
  }

  private static String format(int decimals) {
    return decimals == 0 ? "0" : "0." + "0".repeat(decimals);
  }
}
