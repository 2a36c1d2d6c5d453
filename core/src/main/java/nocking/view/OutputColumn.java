package nocking.view;

import nocking.channel.Channel;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.table.TableSpec;

/**
 * What the output of a receiver's table counts in: the quantity itself, or counts from 0 at the
 * lower end of the working range to a full scale at its upper end.
 *
 * @param unit of the output, for people
 * @param decimals of the output
 * @param zero quantity at output 0
 * @param worth of one unit of the output, in the quantity
 */
public record OutputColumn(String unit, int decimals, double zero, double worth) {

  static OutputColumn of(Channel c, TableSpec spec) {
    int full = spec.arithmetic().fullScale();
    if (full == 0) return new OutputColumn(c.definition().unit(), spec.outDecimals(), 0, 1);
    Span working = c.definition().working();
    return new OutputColumn("counts", 0, working.low(), working.width() / full);
  }

  /** True for outputs in the quantity itself. */
  public boolean plain() {
    return worth == 1 && zero == 0;
  }

  /** The output that means a quantity. */
  public double of(double quantity) {
    return plain() ? quantity : (quantity - zero) / worth;
  }

  /** The quantity that an output means. */
  public double quantity(double output) {
    return plain() ? output : zero + output * worth;
  }

  public String text(double output) {
    return Numbers.fixed(output, decimals);
  }

  /** An error of the output with its unit; counts are LSB there. */
  public String error(double output) {
    return (Numbers.significant(output, 3) + " " + errorUnit()).strip();
  }

  /** A tolerance of the output with its unit. */
  public String tolerance(double output) {
    return (Numbers.trimmed(output, 4) + " " + errorUnit()).strip();
  }

  public String errorUnit() {
    return plain() ? unit : "LSB";
  }
}
