package nocking.diagnosis;

import nocking.fault.Fault;

/**
 * A hypothesis after what was seen.
 *
 * @param hypothesis its number
 * @param fault at its likeliest degree
 * @param logWeight logarithm of prior weight times evidence
 * @param misfit at the likeliest degree
 * @param degrees a few that stand for the likely ones; one, not a number, where there is no degree
 */
record Posterior(int hypothesis, Fault fault, double logWeight, double misfit, double[] degrees) {

  /** With more evidence that does not depend on the degree. */
  Posterior plus(double log) {
    return new Posterior(hypothesis, fault, logWeight + log, misfit, degrees);
  }

  Posterior with(Fault f, double log, double left) {
    return new Posterior(hypothesis, f, log, left, degrees);
  }
}
