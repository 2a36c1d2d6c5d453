package nocking.bench.run;

import nocking.quantity.Numbers;

/**
 * Whether the supply of a sensor stays where it was when a run began: points that were taken at
 * different supplies do not belong together.
 */
final class SupplyWatch {
  /** Share by which a supply may move; what a regulated one stays well within. */
  private static final double MOST = 0.005;

  private double first = Double.NaN;
  private boolean away;
  private boolean silent;
  private String warning = "";

  /**
   * Takes what the supply reads.
   *
   * @param volts NaN where it was not read
   * @return a sentence where it has moved away since the last look, or come back; else empty
   */
  String take(double volts) {
    if (Double.isNaN(volts)) return "";
    silent = false;
    if (Double.isNaN(first)) first = volts;
    double share = (volts - first) / first;
    boolean moved = Math.abs(volts - first) > MOST * Math.abs(first);
    if (moved == away) return "";
    away = moved;
    String now =
        "%s V, %s %% from %s V at the beginning"
            .formatted(
                Numbers.fixed(volts, 3), Numbers.signed(100 * share, 1), Numbers.fixed(first, 3));
    warning = moved ? "The supply has moved: " + now : "";
    return moved ? "the supply has moved: " + now : "the supply is back: " + now;
  }

  /** It is not read; said when that begins, not at every try. */
  String silent(String why) {
    if (silent) return "";
    silent = true;
    return "the supply is not read: " + why;
  }

  /** What is to be said of it now; empty while it stays. */
  String warning() {
    return warning;
  }
}
