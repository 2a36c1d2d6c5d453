package nocking.diagnosis;

import java.util.List;
import nocking.fault.Fault;
import nocking.prior.FaultKind;

/**
 * A fault that may explain what was seen.
 *
 * @param fault at its likeliest degree
 * @param probability after what was seen, among all faults
 * @param misfit sum of the squared differences in standard deviations at the likeliest degree
 * @param observations how many were weighed
 * @param expected what each observation should have been, in its place's unit, with the departures
 *     of sensor and supply inside their tolerances that fit best; empty for an explanation that is
 *     out of the question
 * @param somewhere true where it stands for every stretch of its wire, the likeliest one as example
 */
public record Explanation(
    Fault fault,
    double probability,
    double misfit,
    int observations,
    List<Double> expected,
    boolean somewhere) {

  /** An explanation that says where it is, as far as a fault has a place. */
  public Explanation(
      Fault fault, double probability, double misfit, int observations, List<Double> expected) {
    this(fault, probability, misfit, observations, expected, false);
  }

  /** The same for all stretches of a wire together, of which nothing tells which it is. */
  Explanation somewhere(double together) {
    return new Explanation(fault, together, misfit, observations, expected, true);
  }

  /** The fault with its degree, and with its stretch of the wire where that is known. */
  public String says() {
    return (somewhere ? fault.anywhere() : fault).says();
  }

  /** First letter in upper case, for a line of its own. */
  public String line() {
    return (somewhere ? fault.anywhere() : fault).line();
  }

  /** True for everything but what stands for all that is not on the list. */
  public boolean listed() {
    return fault.kind() != FaultKind.UNLISTED;
  }

  /**
   * True when the differences are what meter, place and tolerances leave open; what is not on the
   * list is not shown to fit by anything.
   */
  public boolean fits() {
    return listed() && fits(misfit, observations);
  }

  /** True for a misfit that so many readings leave as a rule. */
  static boolean fits(double misfit, int observations) {
    int n = Math.max(1, observations);
    return misfit <= n + 5 * Math.sqrt(2.0 * n);
  }
}
