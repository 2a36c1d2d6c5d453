package nocking.table;

import java.util.List;
import nocking.points.RawUnit;
import nocking.quantity.QuantityException;

/**
 * A table that went into a receiver.
 *
 * @param at date and time, ISO 8601
 * @param by who did it
 * @param how in words: typed in, flashed, sent
 * @param note which receiver, which revision; empty for nothing
 * @param axis unit of the raw column
 * @param unit of the output
 * @param cells in the order in which they went, with what was read back
 */
public record Transfer(
    String at,
    String by,
    String how,
    String note,
    RawUnit axis,
    String unit,
    List<TypedCell> cells) {

  public Transfer {
    note = note == null ? "" : note;
    cells = List.copyOf(cells);
    if (cells.size() < 2) throw new QuantityException("a transfer has at least two cells");
  }

  /** What the receiver holds, as far as is known, in its order. */
  public List<Cell> held() {
    return cells.stream().map(TypedCell::held).toList();
  }
}
