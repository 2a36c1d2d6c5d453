package nocking.procedure;

/**
 * A step of a procedure.
 *
 * @param title what to do, in large letters
 * @param detail what else there is to know
 * @param done what the button says when the hands have done it; empty where nothing is done by hand
 * @param at where the reference has to be, in the unit of the procedure; NaN for wherever it is
 * @param down true where {@code at} is reached from above
 * @param deed what the hands do
 * @param hold seconds for which it is held before it is read; 0 for until the readings have settled
 * @param low volts that the reading should reach at least; NaN for none
 * @param high volts that the reading should reach at most; NaN for none
 * @param until milliseconds since 1970 by which it has to be done; {@link Long#MAX_VALUE} for no
 *     such time
 * @param reads false where nothing is read and the hands only say that it is done
 */
public record Step(
    String title,
    String detail,
    String done,
    double at,
    boolean down,
    Deed deed,
    double hold,
    double low,
    double high,
    long until,
    boolean reads) {

  private static Step of(
      String title, String detail, String done, double at, Deed deed, boolean reads) {
    return new Step(
        title, detail, done, at, false, deed, 0, Double.NaN, Double.NaN, Long.MAX_VALUE, reads);
  }

  /** A reading with the reference at a place, as soon as it has settled there. */
  static Step at(String title, String detail, double at) {
    return of(title, detail, "", at, Deed.NONE, true);
  }

  /** A reading after the hands have done something, wherever the reference is. */
  static Step hands(String title, String detail, String done, Deed deed) {
    return of(title, detail, done, Double.NaN, deed, true);
  }

  /** Something that the hands do, and nothing is read. */
  static Step only(String title, String detail, String done, Deed deed) {
    return of(title, detail, done, Double.NaN, deed, false);
  }

  Step fromAbove() {
    return new Step(title, detail, done, at, true, deed, hold, low, high, until, reads);
  }

  Step going(double to) {
    return new Step(title, detail, done, to, down, deed, hold, low, high, until, reads);
  }

  Step held(double seconds) {
    return new Step(title, detail, done, at, down, deed, seconds, low, high, until, reads);
  }

  Step within(double from, double to) {
    return new Step(title, detail, done, at, down, deed, hold, from, to, until, reads);
  }

  Step by(long time) {
    return new Step(title, detail, done, at, down, deed, hold, low, high, time, reads);
  }

  /** True when the hands have to say that it is done. */
  public boolean byHand() {
    return !done.isEmpty();
  }

  /** True when it has to be done by a time. */
  public boolean hasDeadline() {
    return until != Long.MAX_VALUE;
  }

  /** True when the reference has to be somewhere. */
  public boolean placed() {
    return !Double.isNaN(at);
  }
}
