package nocking.book.exchange;

import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import nocking.quantity.Unit;

/** A pasted block of numbers for a list that takes its cells one by one. */
public final class PastedNumbers {
  private PastedNumbers() {}

  /**
   * A block without its names, each number with a point and with the unit of its column, between
   * tabs. Lines that are empty stay: what stands below them belongs where it is. A block that is no
   * table stays as it is.
   */
  public static String plain(String block) {
    ColumnFile f;
    try {
      f = ColumnFile.parse(block, "the pasted block");
    } catch (ColumnException e) {
      return block;
    }
    // What a spreadsheet puts between its cells are tabs; a comma may be a decimal one.
    boolean tabs = f.delimiter() == '\t' || block.indexOf(f.delimiter()) < 0;
    if (f.rows().isEmpty() || !tabs) return block;
    Pattern delimiter = Pattern.compile(Pattern.quote(String.valueOf(f.delimiter())));
    return block
        .lines()
        .skip(f.firstLine() - 1L)
        .map(line -> cells(f, delimiter.split(line, -1)))
        .collect(Collectors.joining("\n"));
  }

  private static String cells(ColumnFile f, String[] cells) {
    return IntStream.range(0, cells.length)
        .mapToObj(i -> cell(f, i, f.pointed(cells[i].strip())))
        .collect(Collectors.joining("\t"));
  }

  private static String cell(ColumnFile f, int column, String number) {
    boolean bare = !number.isEmpty() && number.chars().noneMatch(Character::isLetter);
    String unit = bare ? f.unit(column).map(Unit::symbol).orElse("") : "";
    return (number + " " + unit).strip();
  }
}
