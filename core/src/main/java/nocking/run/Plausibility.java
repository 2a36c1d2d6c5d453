package nocking.run;

import java.util.ArrayDeque;
import java.util.Collections;
import java.util.Deque;
import java.util.Optional;
import nocking.quantity.Numbers;

/**
 * Whether the readings of a channel can be what they are taken for: none beyond its limits, about
 * what is expected, and moved the way the input was moved. What somebody has said yes to is gone by
 * from then on: a sensor that is mounted beside its place is so at every point.
 */
final class Plausibility {
  /** Readings in a row beyond a limit, after which it is no glitch. */
  private static final int IN_A_ROW = 5;

  /** Share of the allowance that they move at most: what still comes back moves. */
  private static final double RESTS = 0.05;

  /** Share of the allowance from which on a move that is expected has to be seen. */
  private static final double SEEN = 0.3;

  /** Share of a move by which it may be off. */
  private static final double FOLLOWS = 0.5;

  private final RunChannel channel;
  private final String unit;
  private final Deque<Double> beyond = new ArrayDeque<>();
  private double offset;
  private boolean anyWay;
  private double beforeAt = Double.NaN;
  private double before = Double.NaN;

  /**
   * @param unit of what is applied
   */
  Plausibility(RunChannel channel, String unit) {
    this.channel = channel;
    this.unit = unit;
  }

  private Expectation expected() {
    return channel.expected();
  }

  /** Another point is gone to. */
  void begin() {
    beyond.clear();
  }

  /**
   * What speaks against a reading as it comes.
   *
   * @param applied NaN where it is not known
   * @return a sentence without its end; empty while nothing does
   */
  Optional<String> reading(double applied, double raw) {
    if (expected() == null) return Optional.empty();
    boolean fault = Double.isFinite(raw) && expected().fault(raw);
    boolean meant = expected().fault(expected().at(applied));
    if (!fault || meant) {
      beyond.clear();
      return Optional.empty();
    }
    if (beyond.size() == IN_A_ROW) beyond.removeFirst();
    beyond.addLast(raw);
    double spread = Collections.max(beyond) - Collections.min(beyond);
    boolean rests = beyond.size() == IN_A_ROW && spread <= RESTS * expected().allowance(applied);
    return rests ? Optional.of(limit(raw, applied)) : Optional.empty();
  }

  private String limit(double raw, double applied) {
    boolean low = expected().low() != null && raw < expected().low();
    double limit = low ? expected().low() : expected().high();
    return "%s, %s %s, where only a fault lies"
        .formatted(reads(raw, applied), low ? "below" : "above", amount(limit));
  }

  /**
   * What speaks against a point.
   *
   * @param applied NaN where it is not known
   * @param mean of its readings
   * @return a sentence without its end; empty when nothing does
   */
  Optional<String> point(double applied, double mean) {
    if (expected() == null || !Double.isFinite(mean)) return Optional.empty();
    double expects = expected().at(applied);
    if (expected().fault(mean) && !expected().fault(expects)) {
      return Optional.of(limit(mean, applied) + slip(mean, expects));
    }
    if (!Double.isFinite(expects)) return Optional.empty();
    double off = mean - expects;
    double most = expected().allowance(applied);
    if (expected().known() && Math.abs(off) > most && Math.abs(off - offset) > most) {
      return Optional.of(
          "%s, expected is about %s%s"
              .formatted(reads(mean, applied), amount(expects), slip(mean, expects)));
    }
    return moved(applied, mean, expects);
  }

  /** An instrument says its unit; who types may slip by a power of ten. */
  private String slip(double mean, double expects) {
    if (!channel.meter().byHand()) return "";
    return Slip.of(mean, expects).map(s -> ". " + s.replaceAll("\\?$", "")).orElse("");
  }

  private Optional<String> moved(double applied, double mean, double expects) {
    if (anyWay || !Double.isFinite(beforeAt)) return Optional.empty();
    double comes = expects - expected().at(beforeAt);
    double came = mean - before;
    double least = SEEN * Math.max(expected().allowance(applied), expected().allowance(beforeAt));
    // How far it moves may be little where it is shallow; the way is known all the same.
    if (expected().known() && !(Math.abs(comes) > least)) return Optional.empty();
    boolean follows = Math.abs(came - comes) <= Math.max(FOLLOWS * Math.abs(comes), least);
    boolean wrongWay = came * comes < 0 && Math.abs(came) > least / 2;
    if (follows || !(wrongWay || expected().known())) return Optional.empty();
    if (!expected().known()) {
      return Optional.of(
          "%s; it moved the wrong way: by %s since %s"
              .formatted(reads(mean, applied), signed(came), applied(beforeAt)));
    }
    String how =
        wrongWay
            ? "it moved the wrong way: by %s since %s, expected is %s"
            : "it does not follow: it moved by %s since %s, expected is %s";
    return Optional.of(
        "%s; %s"
            .formatted(
                reads(mean, applied),
                how.formatted(signed(came), applied(beforeAt), signed(comes))));
  }

  /**
   * A point was taken.
   *
   * @param doubted true where something spoke against it, and somebody said yes to it all the same
   */
  void taken(double applied, double mean, boolean doubted) {
    if (expected() == null || !Double.isFinite(mean)) return;
    double expects = expected().at(applied);
    if (doubted && Double.isFinite(expects)) {
      boolean off = Math.abs(mean - expects) > expected().allowance(applied);
      if (off && !expected().fault(mean)) offset = mean - expects;
      if (moved(applied, mean, expects).isPresent()) anyWay = true;
    }
    boolean tells = Double.isFinite(expects) && !doubted;
    beforeAt = tells ? applied : Double.NaN;
    before = mean;
  }

  /** A point was taken with something against it, and nobody said that it is so. */
  void unsaid() {
    beforeAt = Double.NaN;
  }

  private String reads(double raw, double applied) {
    String where = Double.isFinite(applied) ? " at " + applied(applied) : "";
    return "%s reads %s%s".formatted(channel.tag(), amount(raw), where);
  }

  private String applied(double v) {
    return (Numbers.trimmed(v, 5) + " " + unit).strip();
  }

  private String amount(double v) {
    return channel.raw().amount(v);
  }

  private String signed(double v) {
    return channel.raw().signed(v);
  }
}
