package nocking.channel;

import nocking.table.DisplayLimits;
import nocking.table.TableSpec;

/**
 * What the device behind the converter is given to turn codes into the quantity, and what it goes
 * by meanwhile.
 *
 * @param table null until a table is asked for
 * @param stored curve of its own that it goes by; null where it goes by this channel's
 * @param limits what its display cannot go beyond; null for none
 */
public record Receiver(TableSpec table, StoredCurve stored, DisplayLimits limits) {
  public static final Receiver EMPTY = new Receiver(null, null, null);

  public Receiver withTable(TableSpec v) {
    return new Receiver(v, stored, limits);
  }

  public Receiver withStored(StoredCurve v) {
    return new Receiver(table, v, limits);
  }

  public Receiver withLimits(DisplayLimits v) {
    return new Receiver(table, stored, v);
  }
}
