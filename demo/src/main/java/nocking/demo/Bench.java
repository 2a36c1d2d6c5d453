package nocking.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.quantity.Value;

/**
 * Makes readings as a bench would give them: true parts differ from nominal ones, and every reading
 * has noise. The same seed gives the same readings.
 */
final class Bench {
  private final Random random;

  Bench(long seed) {
    random = new Random(seed);
  }

  /**
   * @param truth volts at the converter for the quantity, as the real parts give them
   * @param noise standard deviation of one reading, volts
   * @param placing standard deviation with which a set point is hit, in the quantity
   * @param decimals digits behind the point with which the reference is written down
   */
  PointSet points(
      double[] setPoints,
      int readings,
      DoubleUnaryOperator truth,
      double noise,
      double placing,
      int decimals) {
    var points = new ArrayList<ReferencePoint>();
    for (double set : setPoints) {
      double x = set + placing * random.nextGaussian();
      var values = new ArrayList<Value>();
      for (int i = 0; i < readings; i++) values.add(volts(truth.applyAsDouble(x), noise));
      points.add(
          new ReferencePoint(typed(Numbers.fixed(x, decimals)), List.copyOf(values), false, null));
    }
    return new PointSet(RawUnit.VOLTS, points);
  }

  /** Volts where something settles, several times. */
  List<Value> settles(double truth, double scatter, int times) {
    var list = new ArrayList<Value>();
    for (int i = 0; i < times; i++) {
      list.add(typed(Numbers.fixed(truth + scatter * random.nextGaussian(), 3)));
    }
    return List.copyOf(list);
  }

  /** One reading of a meter that shows tenths of a millivolt. */
  Value volts(double truth, double noise) {
    return typed(Numbers.fixed(truth + noise * random.nextGaussian(), 4));
  }

  private static Value typed(String text) {
    return new Value(Double.parseDouble(text), text);
  }
}
