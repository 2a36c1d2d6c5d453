package nocking.channel;

import java.util.Optional;
import nocking.quantity.QuantityException;

/**
 * How a learner fared at finding a hidden fault.
 *
 * @param learner name as the learner gave it
 * @param channel tag of the channel that was copied for it
 * @param difficulty in words
 * @param hidden the fault that was there
 * @param named the fault that the learner named
 * @param right true when it was that one, or one that no measurement tells from it
 * @param measurements used
 * @param planned measurements that the engine's own plan needs
 * @param date of the day, as ISO 8601
 * @param effort what it took beside measurements; empty for rounds from before it was counted
 */
public record PracticeResult(
    String learner,
    String channel,
    String difficulty,
    String hidden,
    String named,
    boolean right,
    int measurements,
    int planned,
    String date,
    Optional<Effort> effort) {

  /**
   * What a round took.
   *
   * @param seconds from the complaint to the name, at least 0
   * @param live how often a probe was put on a channel under power
   * @param livePlanned how often the engine's own plan does that
   */
  public record Effort(int seconds, int live, int livePlanned) {
    /** Probes on live parts that were not needed. */
    public int needless() {
      return Math.max(0, live - livePlanned);
    }
  }

  /** A result of which the effort was not counted. */
  public PracticeResult(
      String learner,
      String channel,
      String difficulty,
      String hidden,
      String named,
      boolean right,
      int measurements,
      int planned,
      String date) {
    this(
        learner,
        channel,
        difficulty,
        hidden,
        named,
        right,
        measurements,
        planned,
        date,
        Optional.empty());
  }

  public PracticeResult {
    if (learner == null || learner.isBlank()) {
      throw new QuantityException("a result needs the learner's name");
    }
  }

  /** 100 for the engine's own number of measurements, less for more; 0 for a wrong name. */
  public int score() {
    return right ? (int) Math.round(100.0 * Math.min(1, (double) planned / measurements)) : 0;
  }
}
