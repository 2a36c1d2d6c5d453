package nocking.table;

import java.util.List;
import nocking.points.RawUnit;
import nocking.quantity.QuantityException;

/**
 * What receivers of one make want, kept so that it is said once.
 *
 * @param name not blank
 * @param spec its number of cells, columns, order, decimals, arithmetic, demands and usual rule;
 *     without anything of one channel
 */
public record ReceiverShape(String name, TableSpec spec) {
  private static final TableGoal BEST = TableGoal.USUAL.withPlacement(Placement.OPTIMAL);

  /** Those that every book has. */
  public static final List<ReceiverShape> SHIPPED =
      List.of(
          new ReceiverShape(
              "16 cells, rising", new TableSpec(16, RawUnit.VOLTS, false, 3, 2).with(BEST)),
          new ReceiverShape("32 cells", new TableSpec(32, RawUnit.VOLTS, false, 3, 2).with(BEST)),
          new ReceiverShape(
              "two points",
              new TableSpec(2, RawUnit.VOLTS, false, 3, 2)
                  .with(BEST.withPlacement(Placement.EQUAL))),
          new ReceiverShape(
              "12-bit firmware",
              new TableSpec(16, RawUnit.COUNTS, false, 0, 2)
                  .with(BEST.withFewest(true))
                  .with(new Arithmetic(true, 0, 12, 32, Outside.HOLD))),
          new ReceiverShape(
              "list to type in",
              new TableSpec(16, RawUnit.VOLTS, false, 2, 1)
                  .with(BEST)
                  .with(Demands.NONE.withRefusesEqual(true))));

  public ReceiverShape {
    if (name == null || name.isBlank())
      throw new QuantityException("a receiver's shape needs a name");
    if (spec == null) throw new QuantityException("the receiver's shape " + name + " is empty");
    spec =
        spec.with(spec.demands().withShape(name))
            .with(spec.goal().withTolerance(null).withBench(false))
            .withByHand(List.of());
  }

  /**
   * What a channel wants whose receiver is of this shape: the shape, and of what was said before
   * what belongs to the channel.
   *
   * @param before null where nothing was said
   */
  public TableSpec over(TableSpec before) {
    if (before == null) return spec;
    TableGoal goal =
        spec.goal()
            .withTolerance(before.goal().tolerance())
            .withBench(before.goal().bench())
            .withEvery(before.goal().every());
    boolean same = before.axis() == spec.axis();
    return spec.with(goal)
        .withByHand(
            same && before.arithmetic().fullScale() == spec.arithmetic().fullScale()
                ? before.byHand()
                : List.of());
  }
}
