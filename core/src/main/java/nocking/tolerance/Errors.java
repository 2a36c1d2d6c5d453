package nocking.tolerance;

import java.util.List;

/**
 * Error of the reading at one input, channel's unit.
 *
 * @param worstCase largest error that the limits allow
 * @param standard combined standard uncertainty u, first order (JCGM 100:2008, equation 10)
 * @param ranking what it consists of, the largest first
 */
public record Errors(double worstCase, double standard, List<Share> ranking) {
  public Errors {
    ranking = List.copyOf(ranking);
  }
}
