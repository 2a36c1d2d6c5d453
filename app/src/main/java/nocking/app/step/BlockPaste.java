package nocking.app.step;

import nocking.app.control.Grid;
import nocking.app.desk.Desk;
import nocking.quantity.QuantityException;

/** Blocks that are pasted into a grid of the document: as one edit or not at all. */
public final class BlockPaste {
  private BlockPaste() {}

  /** Lets the grid take blocks cell by cell, and says what was done. */
  public static Grid into(Grid grid, Desk desk) {
    return grid.onPaste(
        said(
            desk,
            (row, column, block) -> {
              var done = new String[1];
              desk.asOne("paste a block", () -> done[0] = grid.putBlock(row, column, block));
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
