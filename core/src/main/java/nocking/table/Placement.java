package nocking.table;

import java.util.Arrays;
import java.util.stream.Collectors;
import nocking.quantity.QuantityException;

/** Where the break-points of a table stand. */
public enum Placement {
  /** As few as a tolerance allows, or the least worst error of so many. */
  OPTIMAL("optimal", "best places"),
  EQUAL("equal", "equal steps"),
  POW2("pow2", "powers of two"),
  EVERY("every", "every k-th row"),
  AT_POINTS("at-points", "at the points"),
  FIXED("fixed", "a fixed axis");

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

  /** True where a number of cells is part of the request. */
  public boolean counts() {
    return this == OPTIMAL || this == EQUAL || this == POW2;
  }

  /**
   * @throws QuantityException for a word that is none
   */
  public static Placement of(String key) {
    for (Placement p : values()) if (p.key.equals(key)) return p;
    throw new QuantityException(
        "read placement '%s', expected %s"
            .formatted(
                key, Arrays.stream(values()).map(p -> p.key).collect(Collectors.joining(", "))));
  }
}
