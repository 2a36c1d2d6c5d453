package nocking.app.step;

import java.util.function.UnaryOperator;
import nocking.app.control.Grid;
import nocking.app.desk.Desk;
import nocking.book.exchange.PastedNumbers;
import nocking.quantity.QuantityException;

/** Blocks that are pasted into a grid of the document: as one edit or not at all. */
public final class BlockPaste {
  private BlockPaste() {}

  /** Lets the grid take blocks cell by cell, and says what was done. */
  public static Grid into(Grid grid, Desk desk) {
    return into(grid, desk, UnaryOperator.identity());
  }

  /** The same for a grid that holds nothing but numbers: names and units of columns are read. */
  public static Grid ofNumbers(Grid grid, Desk desk) {
    return into(grid, desk, PastedNumbers::plain);
  }

  private static Grid into(Grid grid, Desk desk, UnaryOperator<String> meant) {
    return grid.onPaste(
        said(
            desk,
            (row, column, block) -> {
              var done = new String[1];
              String cells = meant.apply(block);
              desk.asOne("paste a block", () -> done[0] = grid.putBlock(row, column, cells));
              desk.say(done[0], false);
            }));
  }

  /** The same; where a block is refused, what was said of another one before goes. */
  public static Grid.BlockTaker said(Desk desk, Grid.BlockTaker taker) {
    return (row, column, block) -> {
      try {
        taker.take(row, column, block);
      } catch (QuantityException e) {
        desk.say("", false);
        throw e;
      }
    };
  }
}
