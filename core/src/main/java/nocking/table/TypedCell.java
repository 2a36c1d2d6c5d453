package nocking.table;

/**
 * A cell on its way into a receiver.
 *
 * @param raw as the list has it
 * @param out as the list has it
 * @param typed true once it is entered
 * @param rawBack what the receiver shows for it; null where nobody has looked
 * @param outBack what the receiver shows as its output; null likewise
 */
public record TypedCell(double raw, double out, boolean typed, Double rawBack, Double outBack) {

  public static TypedCell of(Cell cell) {
    return new TypedCell(cell.raw(), cell.out(), false, null, null);
  }

  public TypedCell withTyped(boolean v) {
    return new TypedCell(raw, out, v, rawBack, outBack);
  }

  public TypedCell withRawBack(Double v) {
    return new TypedCell(raw, out, typed, v, outBack);
  }

  public TypedCell withOutBack(Double v) {
    return new TypedCell(raw, out, typed, rawBack, v);
  }

  /** True when the receiver shows something else than was meant. */
  public boolean differs() {
    return rawBack != null && rawBack != raw || outBack != null && outBack != out;
  }

  /** True when the receiver was asked what it holds there. */
  public boolean readBack() {
    return rawBack != null || outBack != null;
  }

  /** What the receiver holds, as far as is known. */
  public Cell held() {
    return new Cell(rawBack == null ? raw : rawBack, outBack == null ? out : outBack);
  }
}
