package nocking.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.List;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;
import org.hipparchus.fraction.BigFraction;
import org.hipparchus.linear.Array2DRowFieldMatrix;
import org.hipparchus.linear.ArrayFieldVector;
import org.hipparchus.linear.FieldLUDecomposition;
import org.hipparchus.linear.FieldMatrix;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Fits against certified regression results (NIST Statistical Reference Datasets), and against
 * normal equations that are solved in exact fractions.
 */
class CertifiedFitsTest {
  private static final double ENOUGH = 9;

  /** Log relative error, at most 15; for a value that is certified as 0 the digits of its size. */
  private static double lre(double value, double certified) {
    if (value == certified) return 15;
    double error = certified == 0 ? Math.abs(value) : Math.abs(value / certified - 1);
    return Math.min(15, -Math.log10(error));
  }

  private static double worst(List<Coefficient> found, double[] values, double[] errors) {
    double least = 15;
    for (int k = 0; k < values.length; k++) {
      least = Math.min(least, lre(found.get(k).value(), values[k]));
      least = Math.min(least, lre(found.get(k).standardError(), errors[k]));
    }
    return least;
  }

  @Test
  void loadCellMeetsItsCertificate() throws IOException {
    Fit f = new Polynomial(2).fit(FitModelTest.certified("load-cell.csv"));
    double[] values = {0.673565789473684e-3, 0.732059160401003e-6, -0.316081871345029e-14};
    double[] errors = {0.107938612033077e-3, 0.157817399981659e-9, 0.486652849992036e-16};
    assertThat(worst(f.inRaw(), values, errors)).isGreaterThan(12);
    assertThat(lre(f.residualSd(), 0.205177424076185e-3)).isGreaterThan(12);
  }

  @Test
  void ozoneMonitorMeetsItsCertificate() throws IOException {
    Fit f = new LeastSquaresLine().fit(FitModelTest.certified("ozone-monitor.csv"));
    double[] values = {-0.262323073774029, 1.00211681802045};
    double[] errors = {0.232818234301152, 0.429796848199937e-3};
    assertThat(worst(f.inRaw(), values, errors)).isGreaterThan(12);
  }

  private static Samples over(int n, DoubleUnaryOperator y) {
    double[] x = IntStream.range(0, n).asDoubleStream().toArray();
    double[] q = IntStream.range(0, n).mapToDouble(i -> y.applyAsDouble(i)).toArray();
    return new Samples(x, q);
  }

  private static double powers(double x, double share) {
    double sum = 0;
    for (int k = 5; k >= 0; k--) sum = sum * x + Math.pow(share, k);
    return sum;
  }

  /** Wampler's sets of degree 5: without noise the constants come out to the last digits. */
  @ParameterizedTest
  @ValueSource(doubles = {1, 0.1})
  void degreeFiveWithoutNoise(double share) {
    Fit f = new Polynomial(5).fit(over(21, x -> powers(x, share)));
    for (int k = 0; k <= 5; k++) {
      assertThat(lre(f.inRaw().get(k).value(), Math.pow(share, k))).isGreaterThan(ENOUGH);
    }
  }

  /** The same under noise a hundred and ten thousand times as large: errors are certified. */
  @ParameterizedTest
  @ValueSource(doubles = {1, 100, 10_000})
  void degreeFiveUnderNoise(double size) {
    double[] noise = {
      759, -2048, 2048, -2048, 2523, -2048, 2048, -2048, 1838, -2048, 2048, -2048, 1838, -2048,
      2048, -2048, 2523, -2048, 2048, -2048, 759
    };
    Fit f = new Polynomial(5).fit(over(21, x -> powers(x, 1) + size * noise[(int) x]));
    double[] values = {1, 1, 1, 1, 1, 1};
    double[] errors = {
      2152.32624678170,
      2363.55173469681,
      779.343524331583,
      101.475507550350,
      5.64566512170752,
      0.112324854679312
    };
    for (int k = 0; k < 6; k++) errors[k] *= size;
    assertThat(worst(f.inRaw(), values, errors)).isGreaterThan(ENOUGH);
    assertThat(lre(f.residualSd(), size * 2360.14502379268)).isGreaterThan(ENOUGH);
  }

  /** Electron mobility, a cubic over a cubic through 37 points. */
  @Test
  void rationalMeetsItsCertificate() {
    double[] x = {
      -3.067, -2.981, -2.921, -2.912, -2.840, -2.797, -2.702, -2.699, -2.633, -2.481, -2.363,
      -2.322, -1.501, -1.460, -1.274, -1.212, -1.100, -1.046, -0.915, -0.714, -0.566, -0.545,
      -0.400, -0.309, -0.109, -0.103, 0.010, 0.119, 0.377, 0.790, 0.963, 1.006, 1.115, 1.572, 1.841,
      2.047, 2.200
    };
    double[] y = {
      80.574, 84.248, 87.264, 87.195, 89.076, 89.608, 89.868, 90.101, 92.405, 95.854, 100.696,
      101.060, 401.672, 390.724, 567.534, 635.316, 733.054, 759.087, 894.206, 990.785, 1090.109,
      1080.914, 1122.643, 1178.351, 1260.531, 1273.514, 1288.339, 1327.543, 1353.863, 1414.509,
      1425.208, 1421.384, 1442.962, 1464.350, 1468.705, 1447.894, 1457.628
    };
    Fit f = new Rational(3, 3).fit(new Samples(x, y));
    double[] values = {
      1.2881396800e3,
      1.4910792535e3,
      5.8323836877e2,
      7.5416644291e1,
      9.6629502864e-1,
      3.9797285797e-1,
      4.9727297349e-2
    };
    double[] errors = {
      4.6647963344,
      3.9571156086e1,
      2.8698696102e1,
      5.5675370270,
      3.1333340687e-2,
      1.4984928198e-2,
      6.5842344623e-3
    };
    // The certificate has eleven digits.
    assertThat(worst(f.inRaw(), values, errors)).isGreaterThan(ENOUGH);
    assertThat(lre(f.residualSd(), 1.3714600784e1)).isGreaterThan(ENOUGH);
  }

  /** Coefficients and their errors by the normal equations in fractions, without any rounding. */
  private record Exact(BigFraction[] exact, double[] values, double[] errors) {
    static Exact of(double[] x, double[] y, int degree) {
      int p = degree + 1;
      var m = new BigFraction[p][p];
      var right = new BigFraction[p];
      for (int a = 0; a < p; a++) {
        right[a] = BigFraction.ZERO;
        for (int b = 0; b < p; b++) m[a][b] = BigFraction.ZERO;
      }
      for (int i = 0; i < x.length; i++) {
        BigFraction v = new BigFraction(x[i]);
        for (int a = 0; a < p; a++) {
          right[a] = right[a].add(v.pow(a).multiply(new BigFraction(y[i])));
          for (int b = 0; b < p; b++) m[a][b] = m[a][b].add(v.pow(a + b));
        }
      }
      FieldMatrix<BigFraction> inverse =
          new FieldLUDecomposition<>(new Array2DRowFieldMatrix<>(m)).getSolver().getInverse();
      BigFraction[] c = inverse.operate(new ArrayFieldVector<>(right)).toArray();
      BigFraction squares = BigFraction.ZERO;
      for (int i = 0; i < x.length; i++) {
        BigFraction v = new BigFraction(x[i]);
        BigFraction e = new BigFraction(y[i]);
        for (int a = 0; a < p; a++) e = e.subtract(c[a].multiply(v.pow(a)));
        squares = squares.add(e.multiply(e));
      }
      double[] values = new double[p];
      double[] errors = new double[p];
      for (int a = 0; a < p; a++) {
        values[a] = c[a].doubleValue();
        BigFraction variance = squares.multiply(inverse.getEntry(a, a)).divide(x.length - p);
        errors[a] = Math.sqrt(variance.doubleValue());
      }
      return new Exact(c, values, errors);
    }
  }

  /**
   * Degree 10 over −8.8 … −3.1, the hardest of the polynomial sets in its places; degree 5 on codes
   * of a converter; a narrow range far from zero.
   */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6})
  void badlyScaledPolynomialsAreRightToNineDigits(long seed) {
    var r = new Random(seed);
    int degree = seed % 3 == 0 ? 3 : seed % 3 == 1 ? 10 : 5;
    double low = seed % 3 == 0 ? 9_000_000 : seed % 3 == 1 ? -8.782 : 0;
    double high = seed % 3 == 0 ? 9_000_050 : seed % 3 == 1 ? -3.132 : 65_535;
    double[] x = new double[40];
    double[] y = new double[40];
    for (int i = 0; i < x.length; i++) {
      double at = low + (high - low) * r.nextDouble();
      // Halves of halves keep the fractions short.
      x[i] = Math.rint(at * 4096) / 4096;
      double t = (x[i] - low) / (high - low);
      y[i] = Math.rint(8192 * (0.8 + 0.1 * Math.sin(5 * t) + 0.003 * r.nextGaussian())) / 8192;
    }
    Fit f = new Polynomial(degree).fit(new Samples(x, y));
    Exact exact = Exact.of(x, y, degree);
    assertThat(worst(f.inRaw(), exact.values, exact.errors)).isGreaterThan(12);
    // The form that the curve goes by is the same curve.
    for (double v : x) {
      BigFraction sum = BigFraction.ZERO;
      for (int k = degree; k >= 0; k--) sum = sum.multiply(new BigFraction(v)).add(exact.exact[k]);
      assertThat(f.curve().quantity(v)).isCloseTo(sum.doubleValue(), within(1e-13));
    }
  }
}
