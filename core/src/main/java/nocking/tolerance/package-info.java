/**
 * How wrong a channel can be: worst case, first order after JCGM 100:2008, Monte Carlo after JCGM
 * 101:2008, and the ranked list of which part matters; before and after a two-point calibration.
 *
 * <p>The error is that of the reading: the path with the parts as they are, turned back by the
 * equation with the parts as they should be. A calibration at both ends of the working range takes
 * away what is there at the reference temperature as a straight line; drift, resolution,
 * non-linearity and the reference stay.
 */
package nocking.tolerance;
