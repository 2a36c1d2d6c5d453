package nocking.table;

/**
 * A search for a table that is under way: how far it is, and a hand to end it. Safe for several
 * threads: one searches, others look on and end it.
 */
public final class TableSearch {
  private volatile double share;
  private volatile boolean ended;

  /**
   * Ends the search: it comes back soon with the best that it has, and claims no more of it than it
   * knows. A search that is through already is left as it is.
   */
  public void end() {
    ended = true;
  }

  /** True once somebody ended it. */
  public boolean ended() {
    return ended;
  }

  /**
   * The share of the effort that it may take which it has taken, 0 … 1. Most searches are through
   * long before 1; none goes on behind it.
   */
  public double share() {
    return share;
  }

  /** A part of the search came so far: what it says never goes back. */
  void at(double taken) {
    share = Math.max(share, Math.clamp(taken, 0, 1));
  }
}
