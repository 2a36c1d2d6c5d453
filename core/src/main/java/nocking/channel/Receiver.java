package nocking.channel;

import nocking.table.TableSpec;

/**
 * What the device behind the converter is given to turn codes into the quantity.
 *
 * @param table null until a table is asked for
 */
public record Receiver(TableSpec table) {
  public static final Receiver EMPTY = new Receiver(null);

  public Receiver withTable(TableSpec v) {
    return new Receiver(v);
  }
}
