package nocking.channel;

import java.util.List;
import nocking.table.BenchPairs;
import nocking.table.DisplayLimits;
import nocking.table.TableSpec;
import nocking.table.Transfer;
import nocking.table.TypedCell;

/**
 * What the device behind the converter is given to turn codes into the quantity, and what it goes
 * by meanwhile.
 *
 * @param table null until a table is asked for
 * @param stored curve of its own that it goes by; null where it goes by this channel's
 * @param limits what its display cannot go beyond; null for none
 * @param bench pairs that a table can be made of; null for none
 * @param typing the list that is being typed in, in the receiver's order; empty for none
 * @param transfers tables that went into the receiver, the last of them last
 */
public record Receiver(
    TableSpec table,
    StoredCurve stored,
    DisplayLimits limits,
    BenchPairs bench,
    List<TypedCell> typing,
    List<Transfer> transfers) {
  public static final Receiver EMPTY = new Receiver(null, null, null, null, List.of(), List.of());

  public Receiver {
    typing = typing == null ? List.of() : List.copyOf(typing);
    transfers = transfers == null ? List.of() : List.copyOf(transfers);
  }

  public Receiver withTable(TableSpec v) {
    return new Receiver(v, stored, limits, bench, typing, transfers);
  }

  public Receiver withStored(StoredCurve v) {
    return new Receiver(table, v, limits, bench, typing, transfers);
  }

  public Receiver withLimits(DisplayLimits v) {
    return new Receiver(table, stored, v, bench, typing, transfers);
  }

  public Receiver withBench(BenchPairs v) {
    return new Receiver(table, stored, limits, v, typing, transfers);
  }

  public Receiver withTyping(List<TypedCell> v) {
    return new Receiver(table, stored, limits, bench, v, transfers);
  }

  public Receiver withTransfers(List<Transfer> v) {
    return new Receiver(table, stored, limits, bench, typing, v);
  }
}
