package nocking.run;

import nocking.quantity.QuantityException;

/**
 * From here on a run goes by a plan that was put right. What was read before stays in the journal
 * as it came; the points made of it are counted as {@link Recount} has it.
 *
 * @param at milliseconds since 1970
 * @param plan of the same work ({@link RunPlan#likeWork})
 * @param why what differs, in words
 */
public record PlanCorrection(long at, RunPlan plan, String why) implements RunEntry {
  public PlanCorrection {
    if (plan == null) throw new QuantityException("a plan that was put right is missing");
    why = why == null ? "" : why.strip();
  }
}
