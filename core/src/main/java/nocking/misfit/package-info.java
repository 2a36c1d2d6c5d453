/**
 * Reference points that the design does not explain: which single slip, unit, order or constant
 * would make all of them agree, how plausible each is beside the others, and which of them may be
 * mended. What does not fit is said not to fit.
 */
package nocking.misfit;
