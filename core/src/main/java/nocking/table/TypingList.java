package nocking.table;

import java.util.ArrayList;
import java.util.List;

/** The list that is typed into a receiver, cell by cell. */
public final class TypingList {
  private TypingList() {}

  /**
   * The cells as they are wanted now; one that is as it was keeps that it was typed and read.
   *
   * @param wanted in the receiver's order
   * @param before the list as it was
   */
  public static List<TypedCell> of(List<Cell> wanted, List<TypedCell> before) {
    var list = new ArrayList<TypedCell>();
    for (int i = 0; i < wanted.size(); i++) {
      Cell c = wanted.get(i);
      boolean same =
          i < before.size() && before.get(i).raw() == c.raw() && before.get(i).out() == c.out();
      list.add(same ? before.get(i) : TypedCell.of(c));
    }
    return List.copyOf(list);
  }

  /** Cells that are typed. */
  public static int typed(List<TypedCell> list) {
    return (int) list.stream().filter(TypedCell::typed).count();
  }

  /** The first cell that is not typed yet; the number of cells where all are. */
  public static int next(List<TypedCell> list) {
    int i = 0;
    while (i < list.size() && list.get(i).typed()) i++;
    return i;
  }
}
