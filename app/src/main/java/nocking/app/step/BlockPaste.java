package nocking.app.step;

import nocking.app.control.Grid;
import nocking.app.desk.Desk;

/** A block pasted cell by cell into a grid of the document, as one edit or not at all. */
public final class BlockPaste {
  private BlockPaste() {}

  /** Lets the grid take blocks, and says what was done. */
  public static Grid into(Grid grid, Desk desk) {
    return grid.onPaste(
        (row, column, block) -> {
          var done = new String[1];
          desk.asOne("paste a block", () -> done[0] = grid.putBlock(row, column, block));
          desk.say(done[0], false);
        });
  }
}
