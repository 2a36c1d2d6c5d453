package nocking.firmware;

import nocking.table.Outside;

/** A table as one formula of a spreadsheet, over the cells that hold it. */
public final class SheetFormula {
  private SheetFormula() {}

  /**
   * @param raws cells of the raw column, {@code $A$3:$A$18}
   * @param outs cells of the output column
   * @param count number of cells
   * @param raw cell with the raw value that is looked up
   * @param descending true when the raw column falls
   */
  public static String of(
      String raws, String outs, int count, String raw, boolean descending, Outside outside) {
    String low = "MIN(" + raws + ")";
    String high = "MAX(" + raws + ")";
    String x = outside == Outside.HOLD ? "MIN(MAX(%s,%s),%s)".formatted(raw, low, high) : raw;
    String match = "MATCH(%s,%s,%d)".formatted(x, raws, descending ? -1 : 1);
    String i = "MAX(1,MIN(%d,IFERROR(%s,1)))".formatted(count - 1, match);
    String x0 = "INDEX(%s,%s)".formatted(raws, i);
    String x1 = "INDEX(%s,%s+1)".formatted(raws, i);
    String y0 = "INDEX(%s,%s)".formatted(outs, i);
    String y1 = "INDEX(%s,%s+1)".formatted(outs, i);
    String line = "%s+(%s-%s)*(%s-%s)/(%s-%s)".formatted(y0, y1, y0, x, x0, x1, x0);
    return outside == Outside.FAULT
        ? "IF(OR(%s<%s,%s>%s),NA(),%s)".formatted(raw, low, raw, high, line)
        : line;
  }
}
