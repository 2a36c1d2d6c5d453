package nocking.run;

import java.util.List;

/**
 * The reference and all channels, read at one moment.
 *
 * @param at milliseconds since 1970
 * @param target index of the target that was being worked at
 * @param applied what the reference says, in the unit of the plan; NaN where it said nothing
 * @param raw a reading for each channel, in its raw unit; NaN where its meter said nothing
 * @param supply volts of the supply; NaN where nothing reads it
 * @param beside what another reference says, in the unit of the plan; NaN where there is none
 */
public record Sweep(
    long at, int target, double applied, List<Double> raw, double supply, double beside) {
  public Sweep {
    raw = List.copyOf(raw);
  }

  /** A sweep at which nobody looks at the supply or at another reference. */
  public Sweep(long at, int target, double applied, List<Double> raw) {
    this(at, target, applied, raw, Double.NaN, Double.NaN);
  }
}
