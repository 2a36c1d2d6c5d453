package nocking.view;

import nocking.path.PathState;

/**
 * The path at the probe, with what the display would say.
 *
 * @param reading by the curve that the channel goes by
 * @param error reading − quantity
 * @param countsWorth what one count is worth here
 * @param extrapolated true where the reading lies beyond what the sensor is known for
 * @param display what the receiver shows: by its own curve where it has one, not beyond its limits
 * @param limited true where the display stands at a limit
 */
public record ProbeState(
    PathState readOut,
    double reading,
    double error,
    double countsWorth,
    boolean extrapolated,
    double display,
    boolean limited) {}
