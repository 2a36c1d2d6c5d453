package nocking.analysis;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.channel.Channel;
import nocking.path.LinearForm;
import nocking.path.ParameterRef;
import nocking.path.SignalPath;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Value;

/**
 * What one constant at another value would change: both equations, and what the present one would
 * make of a board that has the other value.
 *
 * @param rows at the low end, the middle and the high end of the working range
 * @param shift of the line; empty where one of the two is no straight line
 */
public record WhatIf(SignalPath now, SignalPath then, List<Row> rows, Optional<Shift> shift) {

  /**
   * One input.
   *
   * @param applied channel's unit
   * @param now volts at the converter with the present constant
   * @param then volts at the converter with the other one
   * @param reading what the present equation reads from those
   */
  public record Row(double applied, double now, double then, double reading) {
    /** What the reading would be off by. */
    public double off() {
      return reading - applied;
    }
  }

  /**
   * How a line moves.
   *
   * @param from pivot now, channel's unit
   * @param to pivot then
   * @param slope relative change of the slope
   */
  public record Shift(double from, double to, double slope) {
    public double by() {
      return to - from;
    }
  }

  /**
   * @return empty where the channel, or the channel with the other value, has no path
   * @throws QuantityException when the constant cannot have the value
   */
  public static Optional<WhatIf> of(Analysis a, ParameterRef constant, Value other) {
    Channel changed =
        a.channel().design(d -> d.withParameter(constant.element(), constant.field(), other));
    Optional<SignalPath> then = Analysis.of(changed).design().path();
    if (a.design().path().isEmpty() || then.isEmpty()) return Optional.empty();
    return Optional.of(
        compared(a.channel().definition().working(), a.design().path().get(), then.get()));
  }

  private static WhatIf compared(Span working, SignalPath now, SignalPath then) {
    var rows = new ArrayList<Row>();
    for (double x : new double[] {working.low(), working.middle(), working.high()}) {
      double volts = then.at(x).output();
      rows.add(new Row(x, now.at(x).output(), volts, now.quantity(volts)));
    }
    return new WhatIf(
        now,
        then,
        List.copyOf(rows),
        now.linear().flatMap(before -> then.linear().map(after -> shift(before, after))));
  }

  private static Shift shift(LinearForm before, LinearForm after) {
    return new Shift(before.pivot(), after.pivot(), after.slope() / before.slope() - 1);
  }
}
