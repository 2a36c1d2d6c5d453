package nocking.datasheet;

import java.util.List;
import nocking.quantity.QuantityException;

/**
 * The text of a datasheet as it was understood: nothing is guessed silently.
 *
 * @param separator how its numbers are written
 * @param lines every line that is not empty
 * @param sensors what can be made of it, one for each type
 * @param problem why there is no sensor; empty where there is one
 */
public record Datasheet(
    Separator separator, List<SheetLine> lines, List<SheetSensor> sensors, String problem) {

  /** Longest text that is read, characters. */
  static final int LONGEST = 200_000;

  /** Longest line that is taken for one of a datasheet, characters. */
  static final int LONGEST_LINE = 1_000;

  public Datasheet {
    lines = List.copyOf(lines);
    sensors = List.copyOf(sensors);
  }

  /**
   * Reads a text whose numbers say themselves how they are written.
   *
   * @throws QuantityException where they do not, or where the text is no datasheet at all
   */
  public static Datasheet read(String text) {
    return read(text, Separator.of(text));
  }

  /**
   * @throws QuantityException where the text is empty or too long
   */
  public static Datasheet read(String text, Separator separator) {
    if (text.isBlank()) throw new QuantityException("there is no text to read");
    if (text.length() > LONGEST) {
      throw new QuantityException(
          "a datasheet's text is at most %d characters; read %d".formatted(LONGEST, text.length()));
    }
    return new DatasheetReader(text, separator).read();
  }
}
