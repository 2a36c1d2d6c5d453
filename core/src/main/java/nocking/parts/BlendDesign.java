package nocking.parts;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * Both wipers of a blend about a reference, for a swing that shall shrink to a share and a rest
 * that shall stay where it is wanted.
 *
 * <p>The first potentiometer R_A makes V_r = k_A·V_s behind R_r = k_A(1 − k_A)·R_A; the second,
 * R_B, lies between the signal with its source R_s and that reference; the receiver R_L hangs on
 * its wiper. With G_1 = 1/(R_s + (1 − k_B)R_B), G_2 = 1/(R_r + k_B·R_B) and G_L = 1/R_L the output
 * is (V·G_1 + V_r·G_2)/(G_1 + G_2 + G_L), and what is left of a change is G_1/(G_1 + G_2 + G_L),
 * which rises with k_B from end to end: for each k_A there is at most one k_B, and k_A is found by
 * halving.
 */
public final class BlendDesign {
  private static final int STEPS = 400;
  private static final int HALVINGS = 80;

  private static final double LEAST_CURRENT = 1e-12;

  /** What tracks are usually made to. */
  public static final double TRACK_WITHIN = 0.2;

  /** Tracks that are usual, ohms. */
  public static final List<Double> USUAL = List.of(1e3, 2e3, 5e3, 10e3, 20e3, 50e3, 100e3);

  /** One hundredth of a turn, what a hand sets without effort. */
  public static final double NUDGE = 0.01;

  /**
   * What is wanted.
   *
   * @param swing what shall be left of a change of the signal, above 0 to below 1
   * @param signal volts of the sensor at rest, without load
   * @param rest volts at the receiver at rest
   * @param supply volts across the reference's track, above 0
   * @param source resistance of the signal's source, ohms, at least 0
   * @param receiver input resistance of the receiver, ohms, above 0; infinity where it draws
   *     nothing
   */
  public record Goal(
      double swing, double signal, double rest, double supply, double source, double receiver) {
    public Goal {
      if (!(swing > 0 && swing < 1)) {
        throw new QuantityException(
            "a blend keeps more than 0 %% and less than 100 %% of a swing; read %s %%"
                .formatted(Value.of(100 * swing).typed()));
      }
      if (!(supply > 0) || !(source >= 0) || !(receiver > 0)) {
        throw new QuantityException(
            "a blend needs a supply and a receiver above 0 and a source of at least 0 Ω");
      }
    }
  }

  /**
   * One pair of tracks with its settings.
   *
   * @param referenceWiper k_A, 0 at ground
   * @param blendWiper k_B, 0 at the reference
   * @param referenceFree volts at the reference's wiper with the blend's track taken off
   * @param referenceLoaded the same with everything connected, the sensor at rest
   * @param unplugged volts that the rest moves by while the receiver is not connected
   * @param drawn amperes out of the sensor at rest; negative where the blend feeds it
   * @param seen ohms that a change of the sensor works against, its own source left out
   * @param restPerReference volts that the rest moves by for a hundredth of the reference's turn
   * @param swingPerBlend what is left of a swing, more for a hundredth of the blend's turn
   * @param untrimmed largest relative change of the swing where both tracks are off by a fifth, as
   *     tracks may be, and the wipers stand where they were calculated
   */
  public record Blend(
      double referenceTrack,
      double blendTrack,
      double referenceWiper,
      double blendWiper,
      double referenceFree,
      double referenceLoaded,
      double unplugged,
      double drawn,
      double seen,
      double restPerReference,
      double swingPerBlend,
      double untrimmed) {}

  private final Goal goal;
  private final double ra;
  private final double rb;

  private BlendDesign(Goal goal, double ra, double rb) {
    this.goal = goal;
    this.ra = ra;
    this.rb = rb;
  }

  /**
   * Every pair of tracks that can do it, the one that a receiver moves least first, and among those
   * that are alike the one that draws least from the sensor.
   *
   * @param tracks at hand for either potentiometer, ohms, above 0
   */
  public static List<Blend> search(Goal goal, List<Double> tracks) {
    var list = new ArrayList<Blend>();
    for (double a : tracks) {
      for (double b : tracks) {
        if (!(a > 0) || !(b > 0)) throw new QuantityException("a track must be above 0 Ω");
        new BlendDesign(goal, a, b).solve().ifPresent(list::add);
      }
    }
    list.sort(
        Comparator.comparingDouble((Blend b) -> Math.rint(1e4 * Math.abs(b.unplugged())))
            .thenComparingDouble(b -> Math.abs(b.drawn())));
    return list;
  }

  private double referenceOhms(double a) {
    return a * (1 - a) * ra;
  }

  /** Conductance of a resistance; of none what a node cannot be told from. */
  private static double conductance(double ohms) {
    return 1 / Math.max(ohms, 1e-9);
  }

  private double towardsSensor(double b) {
    return conductance(goal.source + (1 - b) * rb);
  }

  private double towardsReference(double a, double b) {
    return conductance(referenceOhms(a) + b * rb);
  }

  private double all(double a, double b, double receiver) {
    return towardsSensor(b) + towardsReference(a, b) + 1 / receiver;
  }

  private double swing(double a, double b) {
    return towardsSensor(b) / all(a, b, goal.receiver);
  }

  private double rest(double a, double b, double receiver) {
    return (goal.signal * towardsSensor(b) + a * goal.supply * towardsReference(a, b))
        / all(a, b, receiver);
  }

  /** k_B for a k_A; NaN where no place of the wiper leaves that swing. */
  private double blendWiper(double a) {
    if (swing(a, 0) > goal.swing || swing(a, 1) < goal.swing) return Double.NaN;
    double low = 0;
    double high = 1;
    for (int i = 0; i < HALVINGS; i++) {
      double middle = (low + high) / 2;
      if (swing(a, middle) < goal.swing) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  }

  /** How far the rest is off at a k_A whose k_B leaves the swing. */
  private double off(double a) {
    double b = blendWiper(a);
    return Double.isNaN(b) ? Double.NaN : rest(a, b, goal.receiver) - goal.rest;
  }

  private Optional<Blend> solve() {
    double before = off(0);
    for (int i = 1; i <= STEPS; i++) {
      double low = (i - 1.0) / STEPS;
      double high = (double) i / STEPS;
      double now = off(high);
      if (before == 0) return Optional.of(blend(low));
      if (before * now <= 0) return Optional.of(blend(halved(low, high, before)));
      before = now;
    }
    return Optional.empty();
  }

  private double halved(double from, double to, double atFrom) {
    double low = from;
    double high = to;
    for (int i = 0; i < HALVINGS; i++) {
      double middle = (low + high) / 2;
      double there = off(middle);
      if (Double.isNaN(there)) return middle;
      if (there * atFrom > 0) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  }

  /** The swing with both tracks at either end of what is usual for them. */
  private double untrimmed(double a, double b) {
    double most = 0;
    for (int corner = 0; corner < 4; corner++) {
      double sa = (corner & 1) == 0 ? 1 - TRACK_WITHIN : 1 + TRACK_WITHIN;
      double sb = (corner & 2) == 0 ? 1 - TRACK_WITHIN : 1 + TRACK_WITHIN;
      double there = new BlendDesign(goal, ra * sa, rb * sb).swing(a, b);
      most = Math.max(most, Math.abs(there / goal.swing - 1));
    }
    return most;
  }

  /** What the halving leaves of no current at all is none. */
  private double drawn(double output, double b) {
    double amperes = (goal.signal - output) * towardsSensor(b);
    return Math.abs(amperes) < LEAST_CURRENT ? 0 : amperes;
  }

  private Blend blend(double a) {
    double b = blendWiper(a);
    double output = rest(a, b, goal.receiver);
    double free = a * goal.supply;
    double into = (output - free) * towardsReference(a, b);
    double further = b + NUDGE <= 1 ? NUDGE : -NUDGE;
    double turned = a + NUDGE <= 1 ? NUDGE : -NUDGE;
    return new Blend(
        ra,
        rb,
        a,
        b,
        free,
        free + into * referenceOhms(a),
        rest(a, b, Double.POSITIVE_INFINITY) - output,
        drawn(output, b),
        1 / (towardsSensor(b) * (1 - goal.swing)) - goal.source,
        (rest(a + turned, b, goal.receiver) - output) * NUDGE / turned,
        (swing(a, b + further) - swing(a, b)) * NUDGE / further,
        untrimmed(a, b));
  }
}
