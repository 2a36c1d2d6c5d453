package nocking.tolerance;

import java.util.Optional;
import nocking.path.ParameterRef;

/**
 * How much one thing matters.
 *
 * @param name symbol of a parameter, or what else it is
 * @param owner element and field; empty for what is no parameter
 * @param standard its standard uncertainty in the reading, channel's unit
 * @param share of the combined variance, 0 to 1
 */
public record Share(String name, Optional<ParameterRef> owner, double standard, double share) {}
