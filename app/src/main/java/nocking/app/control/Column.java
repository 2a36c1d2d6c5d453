package nocking.app.control;

import java.util.function.IntFunction;
import javafx.scene.Node;
import nocking.quantity.QuantityException;

/**
 * A column of a grid.
 *
 * @param text what a cell shows
 * @param taker takes what was typed; null for a column that is worked out
 * @param style extra style class of a cell, or empty
 * @param graphic sign before the text, or null
 * @param firm true when the column keeps its width where the table is narrow
 * @param from least width of the table at which the column is shown, pixels
 */
public record Column(
    String title,
    double width,
    boolean number,
    IntFunction<String> text,
    CellTaker taker,
    IntFunction<String> style,
    IntFunction<Node> graphic,
    boolean firm,
    double from) {

  public static Column shown(String title, double width, boolean number, IntFunction<String> text) {
    return new Column(title, width, number, text, null, i -> "", i -> null, false, 0);
  }

  public static Column typed(
      String title, double width, boolean number, IntFunction<String> text, CellTaker taker) {
    return new Column(title, width, number, text, taker, i -> "", i -> null, false, 0);
  }

  public Column styled(IntFunction<String> v) {
    return new Column(title, width, number, text, taker, v, graphic, firm, from);
  }

  public Column signed(IntFunction<Node> v) {
    return new Column(title, width, number, text, taker, style, v, firm, from);
  }

  /** What a row shows; nothing where it has gone and the grid is not yet shown anew. */
  String shown(int row) {
    return of(text, row);
  }

  /** Extra style class of a row's cell, or empty. */
  String styled(int row) {
    return of(style, row);
  }

  private static String of(IntFunction<String> what, int row) {
    try {
      return what.apply(row);
    } catch (IndexOutOfBoundsException e) {
      return "";
    }
  }

  /** The same column, which others give way to. */
  public Column keepingItsWidth() {
    return new Column(title, width, number, text, taker, style, graphic, true, from);
  }

  /** The same column, which is left out where the table is narrower. */
  public Column fromWidth(double v) {
    return new Column(title, width, number, text, taker, style, graphic, firm, v);
  }

  /** Takes what was typed into a row, or says why not. */
  @FunctionalInterface
  public interface CellTaker {
    /**
     * @throws QuantityException one sentence
     */
    void take(int row, String text);
  }
}
