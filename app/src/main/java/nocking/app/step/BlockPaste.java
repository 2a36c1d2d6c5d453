package nocking.app.step;

import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import nocking.app.control.Grid;
import nocking.app.desk.Desk;
import nocking.book.exchange.ColumnException;
import nocking.book.exchange.ColumnFile;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;

/** Blocks that are pasted into a grid of the document: as one edit or not at all. */
public final class BlockPaste {
  private BlockPaste() {}

  /** Lets the grid take blocks cell by cell, and says what was done. */
  public static Grid into(Grid grid, Desk desk) {
    return into(grid, desk, UnaryOperator.identity());
  }

  /** The same for a grid that holds nothing but numbers: names and units of columns are read. */
  public static Grid ofNumbers(Grid grid, Desk desk) {
    return into(grid, desk, BlockPaste::numbers);
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

  /**
   * A block without its names, each number with a point and with the unit of its column. Lines that
   * are empty stay: what stands below them belongs where it is.
   */
  static String numbers(String block) {
    ColumnFile f;
    try {
      f = ColumnFile.parse(block, "the pasted block");
    } catch (ColumnException e) {
      return block;
    }
    // What a spreadsheet puts between its cells are tabs; a comma may be a decimal one.
    boolean tabs = f.delimiter() == '\t' || block.indexOf(f.delimiter()) < 0;
    if (f.rows().isEmpty() || !tabs) return block;
    String delimiter = Pattern.quote(String.valueOf(f.delimiter()));
    return block
        .lines()
        .skip(f.named() ? f.rows().getFirst().line() - 1L : 0)
        .map(line -> cells(f, line.split(delimiter, -1)))
        .collect(Collectors.joining("\n"));
  }

  private static String cells(ColumnFile f, String[] cells) {
    return IntStream.range(0, cells.length)
        .mapToObj(
            i -> {
              String number = f.pointed(cells[i].strip());
              boolean bare = !number.isEmpty() && number.chars().noneMatch(Character::isLetter);
              String unit = bare ? f.unit(i).map(Unit::symbol).orElse("") : "";
              return (number + " " + unit).strip();
            })
        .collect(Collectors.joining("\t"));
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
