package nocking.fault;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import nocking.quantity.Numbers;

/**
 * What a fault does beside falsifying a reading: more on the converter's input than it takes, more
 * in a part than it is rated for, more than a hand may touch; the worst over the working range.
 *
 * @param pin what the input is given beyond its ends; empty while it stays within them
 * @param part the part that is beyond its rating the farthest; empty for none
 * @param touch volts without sign, peak, of the highest place that is safe to touch in the sound
 *     channel and is not here; empty for none
 */
public record Harm(Optional<Pin> pin, Optional<Part> part, Optional<Double> touch) {
  public static final Harm NONE = new Harm(Optional.empty(), Optional.empty(), Optional.empty());

  /** Amperes into an input that its own diodes usually take where no datasheet says it. */
  public static final double USUAL_CURRENT = 1e-3;

  /** Amperes from which on it makes no difference how many. */
  private static final double UNHELD = 0.1;

  /**
   * More than the converter's input takes.
   *
   * @param volts with nothing in the input that holds them
   * @param amperes that its own diodes would have to take; NaN where that is not known
   * @param rated amperes that they take; empty where nobody said it
   */
  public record Pin(double volts, double amperes, Optional<Double> rated) {
    /** True where it hangs on a rating that nobody gave, and the current is a usual one. */
    public boolean hangs() {
      return rated.isEmpty() && amperes <= USUAL_CURRENT;
    }

    private String says() {
      String given = "damages the input: " + amount(volts);
      String into =
          amperes <= UNHELD
              ? Numbers.engineering(amperes, "A", 2) + " into it"
              : Double.isNaN(amperes)
                  ? "the current into it is not known"
                  : "nothing holds the current back";
      if (rated.isPresent()) {
        return "%s, %s, rated %s".formatted(given, into, Numbers.compact(rated.get(), "A", 3));
      }
      return hangs()
          ? "%s, unless it takes %s; its rating is not said".formatted(given, into)
          : "%s, %s".formatted(given, into);
    }
  }

  /**
   * A part beyond its rating.
   *
   * @param what its name and whose it is
   * @param volts across it, effective, without sign
   * @param watts that it takes
   * @param overPower watts in shares of the rating
   * @param overVolts volts in shares of the rating
   */
  public record Part(String what, double volts, double watts, double overPower, double overVolts) {
    double over() {
      return Math.max(overPower, overVolts);
    }

    private String says() {
      return overPower >= overVolts
          ? "%s takes %s of %s"
              .formatted(
                  what,
                  Numbers.engineering(watts, "W", 2),
                  Numbers.engineering(watts / overPower, "W", 2))
          : "%s across %s, rated %s"
              .formatted(amount(volts), what, Numbers.engineering(volts / overVolts, "V", 3));
    }
  }

  /** True where it does any. */
  public boolean any() {
    return pin.isPresent() || part.isPresent() || touch.isPresent();
  }

  /** True where it does so for all that is known, and does not hang on a rating nobody gave. */
  public boolean certain() {
    return touch.isPresent() || part.isPresent() || pin.filter(p -> !p.hangs()).isPresent();
  }

  /** The worst first: what is dangerous to touch, then the input, then parts; by its volts. */
  static Comparator<Harm> worstFirst() {
    return Comparator.comparing((Harm h) -> h.touch().isPresent())
        .thenComparing(Harm::certain)
        .thenComparing(h -> h.pin().filter(p -> !p.hangs() || h.touch().isPresent()).isPresent())
        .thenComparing(Harm::volts)
        .thenComparing(h -> h.part().map(Part::over).orElse(0.0))
        .reversed();
  }

  private double volts() {
    double input = pin.map(p -> Math.abs(p.volts())).orElse(0.0);
    return Math.max(input, touch.orElse(0.0));
  }

  /** A sentence without its end, that begins small; empty for none. */
  public String says() {
    var list = new ArrayList<String>();
    touch.ifPresent(v -> list.add(amount(v) + " where a hand may be"));
    pin.ifPresent(p -> list.add(p.says()));
    part.ifPresent(p -> list.add(p.says()));
    return String.join("; ", List.copyOf(list));
  }

  /** The gravest in a few words; empty for none. */
  public String brief() {
    if (touch.isPresent()) return "dangerous to touch: " + amount(touch.get());
    if (pin.filter(p -> !p.hangs()).isPresent() || part.isEmpty()) {
      String does = certain() ? "damages" : "may damage";
      return pin.map(p -> "%s the input: %s".formatted(does, amount(p.volts()))).orElse("");
    }
    return part.get().says();
  }

  private static String amount(double v) {
    return (v < 0 ? "−" : "") + Numbers.engineering(Math.abs(v), "V", 3);
  }
}
