package nocking.diagnosis;

import java.util.List;
import nocking.fault.Fault;

/**
 * A fault that may explain what was seen.
 *
 * @param fault at its likeliest degree
 * @param probability after what was seen, among all faults
 * @param misfit sum of the squared differences in standard deviations at the likeliest degree
 * @param expected what each observation should have been, in its place's unit
 */
public record Explanation(Fault fault, double probability, double misfit, List<Double> expected) {

  /** True when the differences are what meter and tolerances leave open. */
  public boolean fits() {
    int n = Math.max(1, expected.size());
    return misfit <= n + 5 * Math.sqrt(2.0 * n);
  }
}
