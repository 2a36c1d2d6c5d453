package nocking.fault;

import java.util.Optional;
import nocking.quantity.Span;
import nocking.sensor.CurrentLoop;
import nocking.stage.Shunt;

/**
 * Volts at the converter that a sound channel can give.
 *
 * @param volts over the working range with the margin at both ends; for a current loop the currents
 *     of a measured value (NAMUR NE 43) across its burden
 * @param margin what tolerance and noise may take at an end, volts
 * @param tolerance in the channel's unit: the channel's own, else 1 % of the working range
 * @param limits volts that a standard gives for a failure, where one applies and the converter can
 *     see them: a current loop's failure signals (NAMUR NE 43)
 */
public record NormalBand(Span volts, double margin, double tolerance, Optional<Span> limits) {
  private static final double WITHOUT_TOLERANCE = 0.01;
  private static final double NOISE_COUNTS = 2;

  static NormalBand of(Subject subject) {
    Span w = subject.channel().definition().working();
    double stated = subject.channel().definition().toleranceOrNaN();
    double tolerance = Double.isNaN(stated) ? WITHOUT_TOLERANCE * w.width() : stated;
    double low = volts(subject, w.low());
    double high = volts(subject, w.high());
    double slope = Math.abs(high - low) / w.width();
    double margin = slope * tolerance + NOISE_COUNTS * subject.channel().converter().step();
    Span ends = Span.between(low, high);
    if (subject.sensor() instanceof CurrentLoop loop
        && loop.lowCurrent().number() > CurrentLoop.FAILURE_LOW
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
      double reference = subject.channel().converter().reference().number();
      boolean seen = failure.low() > 0 && failure.high() < reference;
      return new NormalBand(
          live,
          Math.min(margin, least / 2),
          tolerance,
          seen ? Optional.of(failure) : Optional.empty());
    }
    return new NormalBand(
        new Span(ends.low() - margin, ends.high() + margin), margin, tolerance, Optional.empty());
  }

  private static double volts(Subject subject, double x) {
    return FaultyPath.of(subject, Fault.NONE, x).converter().value();
  }
}
