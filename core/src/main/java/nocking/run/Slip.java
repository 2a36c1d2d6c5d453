package nocking.run;

import java.util.Optional;

/** A reading that is off from what is expected by a power of ten: a prefix, or a meter's range. */
public final class Slip {
  /** Decades within which a ratio is one of ten. */
  private static final double NEAR = 0.03;

  private Slip() {}

  /** What it looks like, in a sentence; empty where it looks like nothing of the kind. */
  public static Optional<String> of(double reads, double expects) {
    if (!(reads / expects > 0)) return Optional.empty();
    double decades = Math.log10(reads / expects);
    long whole = Math.round(decades);
    if (whole == 0 || Math.abs(whole) > 6 || Math.abs(decades - whole) > NEAR) {
      return Optional.empty();
    }
    String factor =
        whole > 0
            ? "×%.0f".formatted(Math.pow(10, whole))
            : "÷%.0f".formatted(Math.pow(10, -whole));
    return Optional.of("It looks %s: a prefix, or the meter's range?".formatted(factor));
  }
}
