package nocking.analysis;

import nocking.path.ReadOut;

/**
 * The path at the probe, with what the display would say.
 *
 * @param reading by the curve that the channel goes by
 * @param error reading − quantity
 * @param countsWorth what one count is worth here
 */
public record ProbeState(ReadOut readOut, double reading, double error, double countsWorth) {}
