package nocking.diagnosis;

import nocking.fault.Fault;

/**
 * One fault that may be there, with the degrees at which its circuit is solved.
 *
 * @param prior weight before anything is seen
 * @param severities rising; one entry, not a number, where there is no degree
 */
record Hypothesis(Fault fault, double prior, double[] severities) {
  private static final int GRADES = 11;

  static Hypothesis of(Fault fault, double prior) {
    if (!fault.kind().graded()) return new Hypothesis(fault, prior, new double[] {Double.NaN});
    var grid = new double[GRADES];
    for (int i = 0; i < GRADES; i++) grid[i] = fault.kind().severity(i / (GRADES - 1.0));
    return new Hypothesis(fault, prior, grid);
  }

  /** The fault at a degree of its grid; the one without degrees as it is. */
  Fault at(int grade) {
    return fault.kind().graded() ? fault.withSeverity(severities[grade]) : fault;
  }

  boolean graded() {
    return severities.length > 1;
  }
}
