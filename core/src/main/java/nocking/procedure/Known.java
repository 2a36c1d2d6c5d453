package nocking.procedure;

import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.wiring.Thresholds;

/**
 * What is known of the channel that a procedure is done on.
 *
 * @param unit symbol of its quantity
 * @param decimals with which its quantity is written
 * @param working range of its quantity
 * @param tolerance largest error that is still good, in its unit; NaN where none is stated
 * @param converter volts that its converter takes
 * @param design volts at the converter for a quantity, by the design
 * @param quantity quantity for volts at the converter, by the curve that is gone by, without trims;
 *     empty while there is none
 * @param faults volts beyond which a reading is a fault; empty for none
 */
public record Known(
    String unit,
    int decimals,
    Span working,
    double tolerance,
    Span converter,
    DoubleUnaryOperator design,
    Optional<DoubleUnaryOperator> quantity,
    Optional<Thresholds> faults) {

  /** Quantity that volts stand for; NaN without a curve. */
  double quantityOf(double volts) {
    return quantity.map(q -> q.applyAsDouble(volts)).orElse(Double.NaN);
  }

  /** What so many volts are worth in the quantity about a quantity, at least 0. */
  double worth(double volts, double about) {
    double h = working.width() / 200;
    double from = Math.max(about - h, working.low());
    double to = Math.min(about + h, working.high());
    double slope = (design.applyAsDouble(to) - design.applyAsDouble(from)) / (to - from);
    return Math.abs(volts / slope);
  }

  /** A quantity as it is written. */
  String says(double v) {
    return Double.isFinite(v) ? (Numbers.fixed(v, decimals) + " " + unit).strip() : "–";
  }

  /** A difference of quantities as it is written. */
  String signed(double v) {
    return Double.isFinite(v) ? (told(v, decimals + 1) + " " + unit).strip() : "–";
  }

  /** Volts as they are written. */
  static String volts(double v) {
    return Double.isFinite(v) ? Numbers.fixed(v, 4) + " V" : "–";
  }

  /** A difference of volts as it is written. */
  static String millivolts(double v) {
    return Double.isFinite(v) ? told(1000 * v, 1) + " mV" : "–";
  }

  /** A difference with so many decimals, or as many as it takes to tell it from none. */
  private static String told(double v, int decimals) {
    boolean lost = v != 0 && Math.abs(v) < 0.5 * Math.pow(10, -decimals) && Math.abs(v) > 1e-9;
    return Numbers.signed(v, lost ? Numbers.decimalsFor(Math.abs(v)) : decimals);
  }
}
