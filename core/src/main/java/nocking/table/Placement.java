package nocking.table;

import nocking.quantity.QuantityException;

/** Where the break-points of a table stand. */
public enum Placement {
  /** As few as a tolerance allows, or the least worst error of so many. */
  OPTIMAL("optimal", "best places"),
  EQUAL("equal", "equal steps"),
  POW2("pow2", "steps of a power of two");

  private final String key;
  private final String title;

  Placement(String key, String title) {
    this.key = key;
    this.title = title;
  }

  public String key() {
    return key;
  }

  public String title() {
    return title;
  }

  /**
   * @throws QuantityException for a word that is none
   */
  public static Placement of(String key) {
    for (Placement p : values()) if (p.key.equals(key)) return p;
    throw new QuantityException(
        "read placement '%s', expected optimal, equal or pow2".formatted(key));
  }
}
