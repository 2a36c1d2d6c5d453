package nocking.sensor;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import nocking.algebra.Expr;
import nocking.algebra.Piecewise;
import nocking.element.Measurand;
import nocking.element.Parameter;
import nocking.element.Symbols;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * A selector with one voltage a position. The quantity is the position's number, from 1; between
 * two positions the output goes straight from one to the other.
 *
 * @param positions at least two, their voltages rising or falling
 */
@JsonTypeName("stepped")
public record SteppedSensor(
    List<Position> positions,
    @Parameter(symbol = "Rs", label = "Source resistance", unit = "ohm", least = 0)
        Value sourceResistance)
    implements Sensor {

  /**
   * A named position.
   *
   * @param output volts
   */
  public record Position(String name, Value output) {
    public Position {
      if (name == null || output == null) {
        throw new QuantityException("a position needs its name and its voltage");
      }
    }
  }

  static final SteppedSensor EXAMPLE =
      new SteppedSensor(
          List.of(
              new Position("one", Value.of(1)),
              new Position("two", Value.of(2)),
              new Position("three", Value.of(3))),
          Value.of(0));

  public SteppedSensor {
    if (positions == null || positions.size() < 2) {
      throw new QuantityException("a selector needs at least two positions");
    }
    positions = List.copyOf(positions);
  }

  @Override
  public String model() {
    return "stepped";
  }

  @Override
  public String title() {
    return "Positions";
  }

  @Override
  public String inHand() {
    return "positions";
  }

  @Override
  public String alsoCalled() {
    return "selector switch knob";
  }

  @Override
  public String summary() {
    return positions.size() + " positions";
  }

  @Override
  public Expr output(Measurand x, Symbols own) {
    double[] at = IntStream.rangeClosed(1, positions.size()).asDoubleStream().toArray();
    double[] volts = positions.stream().mapToDouble(p -> p.output().number()).toArray();
    for (int i = 1; i < volts.length; i++) {
      if ((volts[i] - volts[i - 1]) * (volts[1] - volts[0]) <= 0) {
        throw new QuantityException(
            "positions %s and %s: list the positions in the order of their voltages, each with its own"
                .formatted(positions.get(i - 1).name(), positions.get(i).name()));
      }
    }
    return x.expr().through(Piecewise.lines("positions", at, volts), Expr.Mode.VALUE);
  }

  @Override
  public Optional<Expr> seriesResistance(Measurand x, Symbols own) {
    return Sensor.source(sourceResistance, own);
  }

  @Override
  public List<String> stations() {
    return positions.stream().map(Position::name).toList();
  }

  @Override
  public Span rated(Unit quantity) {
    return new Span(1, positions.size());
  }

  @Override
  public Optional<Span> known(Unit quantity) {
    return Optional.of(rated(quantity));
  }
}
