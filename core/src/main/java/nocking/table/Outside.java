package nocking.table;

import java.util.Locale;

/** What a look-up gives for raw values outside the break-points. */
public enum Outside {
  /** It goes on with the slope of the end. */
  EXTEND,
  /** It stands still at the end. */
  HOLD,
  /** It gives a code that no reading has. */
  FAULT;

  public String key() {
    return name().toLowerCase(Locale.ROOT);
  }
}
