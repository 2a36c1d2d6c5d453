package nocking.check;

import java.util.List;
import nocking.check.CheckTable.Measured;

/**
 * One line of the check. Everything measured is NaN until it is entered.
 *
 * @param applied channel's unit
 * @param expectedNodes volts at each test point, the last one by the adopted curve
 * @param expectedCode converter output there
 * @param expectedReading what the display should show
 * @param measured as it was entered
 * @param reading what the adopted curve makes of it
 * @param error reading − applied
 * @param percentOfSpan error in percent of the working range's width
 * @param millivolts measured − expected at the converter; NaN for what the sensor gives by itself
 * @param fault true when the volts lie beyond the thresholds, where only a fault can be
 */
public record CheckRow(
    double applied,
    List<Double> expectedNodes,
    int expectedCode,
    double expectedReading,
    double measured,
    double reading,
    double error,
    double percentOfSpan,
    double millivolts,
    boolean fault,
    Verdict verdict) {

  /** What should be measured there, in the unit of the sheet. */
  public double expected(Measured as) {
    return switch (as) {
      case READING -> expectedReading;
      case VOLTS -> expectedNodes.getLast();
      case COUNTS -> expectedCode;
      case OHMS -> expectedNodes.getFirst();
      case MILLIAMPERES -> 1000 * expectedNodes.getFirst();
    };
  }
}
