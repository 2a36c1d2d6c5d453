package nocking.check;

import java.util.List;

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
 * @param millivolts measured − expected at the converter
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
    Verdict verdict) {}
