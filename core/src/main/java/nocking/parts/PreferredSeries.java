package nocking.parts;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.Arrays;
import java.util.stream.DoubleStream;
import nocking.quantity.QuantityException;

/**
 * Preferred values of IEC 60063: E3 to E24 as the standard lists them, E48 to E192 as the rounded
 * powers 10^(i/n), with 9.20 in the place of 9.19 in E192.
 */
public enum PreferredSeries {
  E3(3),
  E6(6),
  E12(12),
  E24(24),
  E48(48),
  E96(96),
  E192(192);

  private final double[] decade;

  PreferredSeries(int n) {
    decade = n <= 24 ? everyOf(24 / n) : rounded(n);
  }

  private static double[] everyOf(int step) {
    double[] e24 = {
      1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6,
      6.2, 6.8, 7.5, 8.2, 9.1
    };
    double[] list = new double[e24.length / step];
    for (int i = 0; i < list.length; i++) list[i] = e24[i * step];
    return list;
  }

  private static double[] rounded(int n) {
    double[] list = new double[n];
    var three = new MathContext(3, RoundingMode.HALF_UP);
    for (int i = 0; i < n; i++) {
      list[i] = new BigDecimal(Math.pow(10, (double) i / n)).round(three).doubleValue();
      if (n == 192 && list[i] == 9.19) list[i] = 9.20;
    }
    return list;
  }

  /**
   * @throws QuantityException naming what was read
   */
  public static PreferredSeries of(String name) {
    return Arrays.stream(values())
        .filter(s -> s.name().equalsIgnoreCase(name.strip()))
        .findFirst()
        .orElseThrow(
            () ->
                new QuantityException(
                    "'%s' is no series; known are E3, E6, E12, E24, E48, E96, E192"
                        .formatted(name)));
  }

  /** Values of one decade, from 1 to below 10. */
  public double[] decade() {
    return decade.clone();
  }

  /** The tolerance that usually goes with the series, percent. */
  public double usualTolerance() {
    return switch (this) {
      case E3, E6 -> 20;
      case E12 -> 10;
      case E24 -> 5;
      case E48 -> 2;
      case E96 -> 1;
      case E192 -> 0.5;
    };
  }

  /** Every value between two limits, rising. */
  public double[] between(double low, double high) {
    var list = DoubleStream.builder();
    int from = (int) Math.floor(Math.log10(low));
    int to = (int) Math.ceil(Math.log10(high));
    for (int d = from; d <= to; d++) {
      for (double v : decade) {
        // As a decimal, so that 4.7 k is 4700 and not 4700.000000000001.
        double value = BigDecimal.valueOf(v).scaleByPowerOfTen(d).doubleValue();
        if (value >= low && value <= high) list.add(value);
      }
    }
    return list.build().toArray();
  }

  /** The value whose ratio to {@code wanted} is nearest to 1. */
  public double nearest(double wanted) {
    double best = Double.NaN;
    for (double v : between(wanted / 11, wanted * 11)) {
      if (Double.isNaN(best)
          || Math.abs(Math.log(v / wanted)) < Math.abs(Math.log(best / wanted))) {
        best = v;
      }
    }
    return best;
  }
}
