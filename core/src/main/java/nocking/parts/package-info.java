/**
 * Choosing parts: preferred values, the drawer, combinations of resistors, dividers, strings for
 * high voltage, single-amplifier circuits for a gain and a shift, pull-ups for thermistors.
 *
 * <p>A search says whether it is exact. It is for dividers of two parts and for combinations of up
 * to four: every network of four resistors in series and parallel is two of them joined to a pair,
 * so that for each two the best pair is found by bisection in the sorted list of all pairs.
 */
package nocking.parts;
