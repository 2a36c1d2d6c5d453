package nocking.table;

/**
 * What a search may still do, counted in looks at a raw step: it ends after so many, whatever it
 * searches and however fast the machine is, and the same search always ends at the same place
 * unless somebody ends it before.
 */
final class SearchEffort {
  /** Looks after which it tells how far it is, and hears whether it is to end. */
  private static final long TELLS = 1L << 16;

  private final TableSearch search;
  private final long looks;
  private long left;
  private long next;
  private boolean cut;

  /**
   * @param looks at a raw step, above 0
   * @param search that is told how far it is
   */
  SearchEffort(long looks, TableSearch search) {
    this.search = search;
    this.looks = looks;
    left = looks;
    next = looks;
  }

  /** Takes some looks; false when they were the last. */
  boolean spend(long some) {
    left -= some;
    if (left <= 0) cut = true;
    if (left <= next) {
      next = left - TELLS;
      search.at(1 - (double) left / looks);
      if (search.ended()) cut = true;
    }
    return !cut;
  }

  /** True when it ended before it was through. */
  boolean cut() {
    return cut;
  }
}
