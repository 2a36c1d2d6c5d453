package nocking.diagnosis;

import nocking.fault.Fault;

/**
 * One fault that may be there.
 *
 * @param prior weight before anything is seen
 */
record Hypothesis(Fault fault, double prior) {
  private static final int GRADES = 11;

  boolean graded() {
    return fault.graded();
  }

  /** The fault at a fraction 0 … 1 of the range of its degrees; the one without as it is. */
  Fault at(double fraction) {
    return graded() ? fault.withSeverity(fault.kind().severity(fraction)) : fault;
  }

  /** Fractions at which its circuit is solved at first, rising. */
  double[] grid() {
    if (!graded()) return new double[] {0};
    var grid = new double[GRADES];
    for (int i = 0; i < GRADES; i++) grid[i] = i / (GRADES - 1.0);
    return grid;
  }
}
