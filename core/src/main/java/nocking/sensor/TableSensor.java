package nocking.sensor;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import nocking.algebra.Expr;
import nocking.algebra.Piecewise;
import nocking.element.Choice;
import nocking.element.Measurand;
import nocking.element.Parameter;
import nocking.element.Signal;
import nocking.element.Symbols;
import nocking.element.Titled;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * A datasheet table, joined by straight lines or by a monotone cubic (Fritsch and Carlson 1980).
 * Outside its ends it has no value.
 *
 * @param points at least two, in either order, inputs and outputs strictly monotone
 * @param signal what the outputs are
 */
@JsonTypeName("table")
public record TableSensor(
    List<TablePoint> points,
    @Choice(label = "Between the rows") Interpolation interpolation,
    @Choice(label = "Output is") Signal signal,
    @Parameter(symbol = "Rs", label = "Source resistance", unit = "ohm", least = 0)
        Value sourceResistance)
    implements Sensor {

  /** How the rows are joined. */
  public enum Interpolation implements Titled {
    LINEAR("straight lines"),
    MONOTONE_CUBIC("smooth cubic");

    private final String title;

    Interpolation(String title) {
      this.title = title;
    }

    @Override
    public String title() {
      return title;
    }
  }

  static final TableSensor EXAMPLE =
      new TableSensor(
          List.of(TablePoint.of(0, 0.5), TablePoint.of(50, 2.2), TablePoint.of(100, 4.5)),
          Interpolation.LINEAR,
          Signal.VOLTAGE,
          Value.of(0));

  public TableSensor {
    int rows = points == null ? 0 : points.size();
    if (rows < 2) throw new QuantityException("a table needs at least two rows; it has " + rows);
    points = List.copyOf(points);
  }

  @Override
  public String model() {
    return "table";
  }

  @Override
  public String title() {
    return "Datasheet table";
  }

  @Override
  public String inHand() {
    return "a table";
  }

  @Override
  public String summary() {
    return "%d rows, %s…%s"
        .formatted(
            points.size(),
            Numbers.trimmed(points.getFirst().at().number(), 4),
            Numbers.trimmed(points.getLast().at().number(), 4));
  }

  /**
   * The table as a function.
   *
   * @throws QuantityException naming the rows that are not monotone
   */
  public Piecewise graph() {
    double direction = Math.signum(at(1) - at(0));
    double slope = Math.signum(output(1) - output(0));
    for (int i = 1; i < points.size(); i++) {
      if (Math.signum(at(i) - at(i - 1)) != direction || direction == 0) {
        throw new QuantityException(
            "table rows %d and %d: the inputs %s and %s are not in order"
                .formatted(i, i + 1, points.get(i - 1).at().typed(), points.get(i).at().typed()));
      }
      if (Math.signum(output(i) - output(i - 1)) != slope || slope == 0) {
        throw new QuantityException(
            "table rows %d and %d: the outputs %s and %s turn back, so two inputs would give the same output"
                .formatted(
                    i, i + 1, points.get(i - 1).output().typed(), points.get(i).output().typed()));
      }
    }
    var rising = new ArrayList<>(points);
    if (direction < 0) java.util.Collections.reverse(rising);
    double[] x = rising.stream().mapToDouble(p -> p.at().number()).toArray();
    double[] y = rising.stream().mapToDouble(p -> p.output().number()).toArray();
    return interpolation == Interpolation.LINEAR
        ? Piecewise.lines("table", x, y)
        : Piecewise.monotoneCubic("table", x, y);
  }

  private double at(int i) {
    return points.get(i).at().number();
  }

  private double output(int i) {
    return points.get(i).output().number();
  }

  @Override
  public Expr output(Measurand x, Symbols own) {
    return x.expr().through(graph(), Expr.Mode.VALUE);
  }

  @Override
  public Optional<Expr> seriesResistance(Measurand x, Symbols own) {
    return signal == Signal.VOLTAGE ? Sensor.source(sourceResistance, own) : Optional.empty();
  }

  @Override
  public Span rated(Unit quantity) {
    return Span.between(at(0), at(points.size() - 1));
  }

  @Override
  public Optional<Span> known(Unit quantity) {
    return Optional.of(rated(quantity));
  }

  @Override
  public Sensor convert(Unit from, Unit to, UnaryOperator<Value> value) {
    List<TablePoint> next =
        points.stream().map(p -> new TablePoint(value.apply(p.at()), p.output())).toList();
    return new TableSensor(next, interpolation, signal, sourceResistance);
  }
}
