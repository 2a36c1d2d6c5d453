package nocking.band;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import nocking.quantity.Numbers;
import nocking.quantity.Span;

/**
 * The windows of a selector, judged by where it was seen to settle.
 *
 * <p>The suggested half window is half the smallest spacing of the stations less the largest
 * departure of any settle from its station, in either direction of travel.
 *
 * @param windows in the order of the plan
 * @param suggested half window, volts; at most 0 where the stations lie too close
 * @param used fraction of the converter's range between the outermost stations
 * @param lever length that would use {@value #WANTED} of the range, millimetres; empty where it
 *     cannot be told or the travel is used well
 */
public record Positions(
    List<Window> windows,
    double suggested,
    double used,
    OptionalDouble lever,
    List<BandProblem> problems) {
  /** Part of the range that a selector should use. */
  public static final double WANTED = 0.8;

  private static final double LITTLE = 0.5;

  /**
   * One window.
   *
   * @param centre volts
   * @param low lower end, volts
   * @param high upper end, volts
   * @param mean of all observed voltages; the centre where there are none
   * @param scatter largest departure of a settle from the mean
   * @param slack difference of the means up and down; NaN where one is missing
   * @param observed how many there are
   */
  public record Window(
      String name,
      double centre,
      double low,
      double high,
      double mean,
      double scatter,
      double slack,
      int observed) {
    public boolean holds(double volts) {
      return volts >= low && volts <= high;
    }
  }

  /**
   * @param range volts that the converter takes
   */
  public static Positions of(BandPlan plan, Span range) {
    List<BandPosition> list = plan.positions();
    int n = list.size();
    var mean = new double[n];
    var scatter = new double[n];
    for (int i = 0; i < n; i++) {
      double[] observed = list.get(i).observed();
      double centre = list.get(i).centre().number();
      mean[i] = observed.length == 0 ? centre : Arrays.stream(observed).average().orElseThrow();
      for (double s : observed) scatter[i] = Math.max(scatter[i], Math.abs(s - mean[i]));
    }
    double spacing = Double.POSITIVE_INFINITY;
    for (int i = 1; i < n; i++) spacing = Math.min(spacing, Math.abs(mean[i] - mean[i - 1]));
    double worst = Arrays.stream(scatter).max().orElse(0);
    double suggested = n < 2 ? Double.NaN : spacing / 2 - worst;
    var windows = new ArrayList<Window>();
    for (int i = 0; i < n; i++) {
      BandPosition p = list.get(i);
      double half = p.half() != null ? p.half().number() : Math.max(0, suggested);
      double centre = p.centre().number();
      windows.add(
          new Window(
              p.name(),
              centre,
              centre - half,
              centre + half,
              mean[i],
              scatter[i],
              Math.abs(BandPosition.mean(p.up()) - BandPosition.mean(p.down())),
              p.observed().length));
    }
    double used = n < 2 ? Double.NaN : Math.abs(mean[n - 1] - mean[0]) / range.width();
    OptionalDouble lever = lever(plan, used);
    var problems = new ArrayList<BandProblem>();
    order(windows, problems);
    overlaps(windows, problems);
    observedOutside(windows, problems);
    close(windows, suggested, worst, problems);
    slack(windows, list, problems);
    travel(used, plan, lever, problems);
    return new Positions(List.copyOf(windows), suggested, used, lever, List.copyOf(problems));
  }

  /**
   * A rod that moves a lever of length L by the chord s turns it by 2·asin(s/(2L)); the same chord
   * on a shorter lever turns it further.
   */
  private static OptionalDouble lever(BandPlan plan, double used) {
    if (plan.lever() == null || plan.turn() == null || !(used < LITTLE)) {
      return OptionalDouble.empty();
    }
    double turn = Math.toRadians(plan.turn().number());
    double chord = 2 * plan.lever().number() * Math.sin(used * turn / 2);
    double wanted = WANTED * turn;
    // A crank at more than a right angle to either side no longer moves evenly.
    if (wanted >= Math.PI) return OptionalDouble.empty();
    return OptionalDouble.of(chord / (2 * Math.sin(wanted / 2)));
  }

  private static String volts(double v) {
    return Numbers.engineering(v, "V", 3);
  }

  private static void order(List<Window> w, List<BandProblem> problems) {
    for (int i = 2; i < w.size(); i++) {
      double step = w.get(i).centre() - w.get(i - 1).centre();
      double first = w.get(1).centre() - w.get(0).centre();
      if (step * first <= 0) {
        problems.add(
            new BandProblem(
                BandProblem.Kind.ORDER,
                i,
                "%s at %s does not go on in the direction of %s at %s"
                    .formatted(
                        w.get(i).name(),
                        volts(w.get(i).centre()),
                        w.get(i - 1).name(),
                        volts(w.get(i - 1).centre()))));
      }
    }
  }

  private static void overlaps(List<Window> w, List<BandProblem> problems) {
    for (int i = 1; i < w.size(); i++) {
      Window a = w.get(i - 1).centre() < w.get(i).centre() ? w.get(i - 1) : w.get(i);
      Window b = a == w.get(i) ? w.get(i - 1) : w.get(i);
      double overlap = a.high() - b.low();
      if (overlap > 1e-12) {
        problems.add(
            new BandProblem(
                BandProblem.Kind.OVERLAP,
                i,
                "the windows of %s and %s overlap by %s"
                    .formatted(w.get(i - 1).name(), w.get(i).name(), volts(overlap))));
      }
    }
  }

  private static void observedOutside(List<Window> w, List<BandProblem> problems) {
    for (int i = 0; i < w.size(); i++) {
      Window p = w.get(i);
      double out = Math.max(p.low() - (p.mean() - p.scatter()), p.mean() + p.scatter() - p.high());
      if (p.observed() > 0 && out > 1e-12) {
        problems.add(
            new BandProblem(
                BandProblem.Kind.GAP,
                i,
                "%s settled up to %s outside its window".formatted(p.name(), volts(out))));
      }
    }
  }

  private static void close(
      List<Window> w, double suggested, double worst, List<BandProblem> problems) {
    if (w.size() < 2 || suggested > worst) return;
    problems.add(
        new BandProblem(
            BandProblem.Kind.TOO_CLOSE,
            0,
            "the stations lie too close for what was seen: the observed voltages scatter by %s and only %s is left for half a window"
                .formatted(volts(worst), volts(Math.max(0, suggested)))));
  }

  /** One settle tells nothing of the next: a window that is made of it leaves no room for slack. */
  private static void slack(List<Window> w, List<BandPosition> plan, List<BandProblem> problems) {
    List<String> unknown =
        IntStream.range(0, w.size())
            .filter(i -> w.get(i).observed() < 2 && plan.get(i).half() == null)
            .mapToObj(i -> w.get(i).name())
            .toList();
    if (w.size() < 2 || unknown.isEmpty()) return;
    boolean all = unknown.size() == w.size();
    problems.add(
        new BandProblem(
            BandProblem.Kind.SLACK,
            0,
            "how far %s beside %s place is not known, and the suggested windows leave nothing for"
                    .formatted(
                        all ? "the stations settle" : String.join(", ", unknown) + settle(unknown),
                        unknown.size() == 1 ? "its" : "their")
                + " it: let each settle twice or more, from both sides"));
  }

  private static String settle(List<String> names) {
    return names.size() == 1 ? " settles" : " settle";
  }

  private static void travel(
      double used, BandPlan plan, OptionalDouble lever, List<BandProblem> problems) {
    if (!(used < LITTLE)) return;
    String more =
        lever.isPresent()
            ? "; a lever of %s mm instead of %s would use %s %%"
                .formatted(
                    Numbers.trimmed(lever.getAsDouble(), 3),
                    Numbers.trimmed(plan.lever().number(), 4),
                    Numbers.trimmed(100 * WANTED, 2))
            : "";
    problems.add(
        new BandProblem(
            BandProblem.Kind.TRAVEL,
            0,
            "the stations use only %s %% of the converter's range%s"
                .formatted(Numbers.trimmed(100 * used, 2), more)));
  }
}
