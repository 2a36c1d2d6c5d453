package nocking.fault;

import java.util.Optional;
import nocking.quantity.Span;
import nocking.sensor.CurrentLoop;
import nocking.stage.Shunt;

/**
 * Volts at the converter that a sound channel can give.
 *
 * @param volts over the working range and the supply's tolerance, with the margin at both ends; for
 *     a current loop the currents of a measured value (NAMUR NE 43) across its burden
 * @param margin what tolerance and noise may take at an end, volts
 * @param tolerance in the channel's unit: the channel's own, else 1 % of the working range
 * @param limits volts that a standard gives for a failure, where one applies and the converter can
 *     see them: a current loop's failure signals (NAMUR NE 43)
 * @param step one count of the converter, volts
 * @param reference volts above which the converter tells nothing apart
 */
public record NormalBand(
    Span volts,
    double margin,
    double tolerance,
    Optional<Span> limits,
    double step,
    double reference) {
  private static final double WITHOUT_TOLERANCE = 0.01;
  private static final double NOISE_COUNTS = 2;

  /** What must lie between the band and a fault, so that a threshold fits in between, volts. */
  double room() {
    return Math.max(4 * step, margin / 4);
  }

  /** True for volts at the converter that a threshold below the band tells from good ones. */
  boolean below(double volts) {
    return told() && volts <= volts().low() - room() && volts().low() - room() > 2 * step;
  }

  /** True for volts at the converter that a threshold above the band tells from good ones. */
  boolean above(double volts) {
    double seen = Math.min(reference, volts);
    return told() && seen >= volts().high() + room() && volts().high() + room() < reference;
  }

  /** True where good readings are such that others can be told from them at all. */
  private boolean told() {
    return volts.low() < reference && volts.high() > 0 && Double.isFinite(volts.width());
  }

  static NormalBand of(Subject subject) {
    Span w = subject.channel().definition().working();
    double stated = subject.channel().definition().toleranceOrNaN();
    double tolerance = Double.isNaN(stated) ? WITHOUT_TOLERANCE * w.width() : stated;
    double low = volts(subject, w.low());
    double high = volts(subject, w.high());
    double slope = Math.abs(high - low) / w.width();
    double step = subject.channel().design().converter().step();
    double reference = subject.channel().design().converter().reference().number();
    double margin = slope * tolerance + NOISE_COUNTS * step;
    Span ends = Span.between(low, high);
    // A sound supply is somewhere inside its own tolerance, and a signal that is a part of it too.
    double share = subject.supply().isPresent() ? subject.supplied().share() : 0;
    for (double rail : share == 0 ? new double[0] : new double[] {1 - share, 1 + share}) {
      double a = volts(subject, w.low(), rail);
      double b = volts(subject, w.high(), rail);
      ends = new Span(Math.min(ends.low(), Math.min(a, b)), Math.max(ends.high(), Math.max(a, b)));
    }
    if (subject.sensor() instanceof CurrentLoop loop
        && loop.least() > CurrentLoop.FAILURE_LOW
        && !subject.stages().isEmpty()
        && subject.stages().getFirst() instanceof Shunt) {
      double perAmpere =
          (high - low) / (subject.output(loop, w.high()) - subject.output(loop, w.low()));
      double offset = low - perAmpere * subject.output(loop, w.low());
      Span live =
          Span.between(
              offset + perAmpere * CurrentLoop.NORMAL.low(),
              offset + perAmpere * CurrentLoop.NORMAL.high());
      double least = Math.abs(perAmpere) * (CurrentLoop.NORMAL.low() - CurrentLoop.FAILURE_LOW);
      Span failure =
          Span.between(
              offset + perAmpere * CurrentLoop.FAILURE_LOW,
              offset + perAmpere * CurrentLoop.FAILURE_HIGH);
      boolean seen = failure.low() > 0 && failure.high() < reference;
      return new NormalBand(
          live,
          Math.min(margin, least / 2),
          tolerance,
          seen ? Optional.of(failure) : Optional.empty(),
          step,
          reference);
    }
    return new NormalBand(
        new Span(ends.low() - margin, ends.high() + margin),
        margin,
        tolerance,
        Optional.empty(),
        step,
        reference);
  }

  private static double volts(Subject subject, double x) {
    return volts(subject, x, 1);
  }

  private static double volts(Subject subject, double x, double rail) {
    return FaultyPath.onRail(subject, Fault.NONE, x, rail).converter().value();
  }
}
