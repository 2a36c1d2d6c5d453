package nocking.diagnosis;

import nocking.fault.Fault;

/**
 * Two faults that together explain what was seen, each at its likeliest degree.
 *
 * @param probability among all pairs, all single faults and what is not on the list
 */
public record FaultPair(Fault first, Fault second, double probability) {

  /** True where one of them is this fault, whatever its degree. */
  boolean holds(Fault fault) {
    return first.same(fault) || second.same(fault);
  }

  /** The one that is not this fault. */
  Fault beside(Fault fault) {
    return first.same(fault) ? second : first;
  }
}
