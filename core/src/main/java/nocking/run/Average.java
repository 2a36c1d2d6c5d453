package nocking.run;

import java.util.ArrayList;
import java.util.List;

/** The newest readings of all channels, as many as make a point. */
final class Average {
  private final int wanted;
  private final List<List<Double>> counted = new ArrayList<>();
  private final List<List<Double>> still = new ArrayList<>();
  private final List<Double> applied = new ArrayList<>();
  private final List<Double> supply = new ArrayList<>();
  private final List<Double> apart = new ArrayList<>();
  private int placed;

  /**
   * @param channels how many
   * @param wanted readings that make a point, at least 1
   */
  Average(int channels, int wanted) {
    this.wanted = wanted;
    for (int i = 0; i < channels; i++) {
      counted.add(new ArrayList<>());
      still.add(new ArrayList<>());
    }
  }

  /**
   * A reading of a channel; what is none does not count.
   *
   * @param still what it would be if the reference stood at its set point
   */
  void take(int channel, double reading, double still) {
    if (!Double.isFinite(reading)) return;
    newest(counted.get(channel), reading);
    newest(this.still.get(channel), still);
  }

  /**
   * What the reference said at the same moment.
   *
   * @param instead where it should be, where it said nothing
   */
  void placed(double said, double instead) {
    boolean read = Double.isFinite(said);
    if (read) placed++;
    newest(applied, read ? said : instead);
  }

  /** What the supply read at the same moment; NaN where nobody looked. */
  void supplied(double volts) {
    if (Double.isFinite(volts)) newest(supply, volts);
  }

  /** Mean volts of the supply; NaN where nobody looked. */
  double supply() {
    return mean(supply);
  }

  /** How much more another reference said at the same moment; NaN where there is none. */
  void apart(double more) {
    if (Double.isFinite(more)) newest(apart, more);
  }

  /** How much more another reference said than the first, on average; NaN where there is none. */
  double apart() {
    return mean(apart);
  }

  private void newest(List<Double> list, double v) {
    if (list.size() == wanted) list.removeFirst();
    list.add(v);
  }

  /** Sweeps that count. */
  int sweeps() {
    return applied.size();
  }

  boolean full() {
    return sweeps() == wanted;
  }

  /** True where the reference was read at least once. */
  boolean placeKnown() {
    return placed > 0;
  }

  double applied() {
    return mean(applied);
  }

  /** For each channel the readings that count, in their order. */
  List<List<Double>> readings() {
    return counted;
  }

  /** Mean of the readings of a channel; NaN without any. */
  double mean(int channel) {
    return mean(counted.get(channel));
  }

  /** Mean of what the readings of a channel would be if the reference stood still. */
  double still(int channel) {
    return mean(still.get(channel));
  }

  private static double mean(List<Double> list) {
    return list.stream().mapToDouble(v -> v).average().orElse(Double.NaN);
  }
}
