package nocking.datasheet;

/**
 * A line of the text with what was made of it.
 *
 * @param number from 1
 * @param says what was understood, or why nothing was
 */
public record SheetLine(int number, String text, Reading reading, String says) {

  /** How far a line was understood. */
  public enum Reading {
    /** It counts. */
    UNDERSTOOD,
    /** It is known what it says, and nothing here needs it. */
    NOT_NEEDED,
    /** Nobody knows. */
    NOT_UNDERSTOOD,
    /** It says something else than another line. */
    CONTRADICTS
  }
}
