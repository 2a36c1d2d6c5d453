package nocking.table;

/**
 * What a search may still do, counted in looks at a raw step: it ends after so many, whatever it
 * searches and however fast the machine is, and the same search always ends at the same place.
 */
final class SearchEffort {
  private long left;
  private boolean cut;

  /**
   * @param looks at a raw step, above 0
   */
  SearchEffort(long looks) {
    left = looks;
  }

  /** Takes some looks; false when they were the last. */
  boolean spend(long looks) {
    left -= looks;
    if (left <= 0) cut = true;
    return !cut;
  }

  /** True when it ended before it was through. */
  boolean cut() {
    return cut;
  }
}
