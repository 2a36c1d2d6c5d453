package nocking.parts;

import java.util.Arrays;
import java.util.OptionalDouble;
import nocking.quantity.Numbers;

/**
 * Ratings that resistors are made for, and the next one that would do: a part lasts at {@value
 * #DERATING} of its rating.
 */
public final class PartSize {
  /** Share of a rating that is used. */
  public static final double DERATING = 0.6;

  private static final double[] WATTS = {
    0.05, 0.063, 0.1, 0.125, 0.25, 0.4, 0.5, 0.6, 1, 2, 3, 5, 7, 10, 15, 20, 50
  };
  private static final double[] VOLTS = {50, 75, 150, 200, 250, 350, 500, 750, 1000, 1600, 3500};

  private PartSize() {}

  /** The least rated power of a part that takes these watts; empty beyond usual parts. */
  public static OptionalDouble forWatts(double watts) {
    return next(WATTS, watts);
  }

  /** The least working voltage of a part with these volts across it; empty beyond usual parts. */
  public static OptionalDouble forVolts(double volts) {
    return next(VOLTS, volts);
  }

  private static OptionalDouble next(double[] ratings, double needed) {
    return Arrays.stream(ratings).filter(r -> needed <= DERATING * r * (1 + 1e-9)).findFirst();
  }

  /** In words: {@code a part of 0.25 W would do}; or that none of the usual ones does. */
  public static String saysWatts(double watts) {
    OptionalDouble size = forWatts(watts);
    return size.isPresent()
        ? "a part of %s would do".formatted(Numbers.compact(size.getAsDouble(), "W", 3))
        : "no usual part takes %s".formatted(Numbers.engineering(watts, "W", 2));
  }

  /** In words: {@code a part of 500 V would do}; or that none of the usual ones does. */
  public static String saysVolts(double volts) {
    OptionalDouble size = forVolts(volts);
    return size.isPresent()
        ? "a part of %s would do".formatted(Numbers.compact(size.getAsDouble(), "V", 4))
        : "no usual part bears %s".formatted(Numbers.engineering(volts, "V", 3));
  }
}
