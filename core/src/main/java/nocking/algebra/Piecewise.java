package nocking.algebra;

import java.util.Arrays;
import java.util.List;
import nocking.quantity.Span;

/**
 * Polynomials that take over from one another at break-points: datasheet tables joined by straight
 * lines or cubics, and the reference functions of thermometry.
 */
public final class Piecewise implements TabulatedFunction {

  /**
   * One polynomial, Σ cᵢ·(x − origin)ⁱ.
   *
   * @param from start of the piece
   * @param to its end, above {@code from}
   * @param coefficients c₀, c₁ …
   * @param bump a bell added to the polynomial; null for none
   */
  public record Piece(double from, double to, double origin, double[] coefficients, Bump bump) {
    public static Piece polynomial(double from, double to, double... coefficients) {
      return new Piece(from, to, 0, coefficients, null);
    }

    double value(double x) {
      double t = x - origin;
      double sum = 0;
      for (int i = coefficients.length - 1; i >= 0; i--) sum = sum * t + coefficients[i];
      return bump == null ? sum : sum + bump.value(x);
    }

    double slope(double x) {
      double t = x - origin;
      double sum = 0;
      for (int i = coefficients.length - 1; i >= 1; i--) sum = sum * t + i * coefficients[i];
      return bump == null ? sum : sum + bump.slope(x);
    }
  }

  /** a₀·exp(a₁·(x − a₂)²), which the reference function of thermocouple K has beside its powers. */
  public record Bump(double height, double exponent, double centre) {
    double value(double x) {
      return height * Math.exp(exponent * (x - centre) * (x - centre));
    }

    double slope(double x) {
      return 2 * exponent * (x - centre) * value(x);
    }
  }

  private final String name;
  private final List<Piece> pieces;
  private final double[] starts;
  private final Span domain;
  private final Span branch;

  private Piecewise(String name, List<Piece> pieces, Span branch) {
    this.name = name;
    this.pieces = List.copyOf(pieces);
    starts = pieces.stream().mapToDouble(Piece::from).toArray();
    domain = new Span(pieces.getFirst().from(), pieces.getLast().to());
    this.branch = branch == null ? domain : branch;
  }

  /**
   * @param pieces in rising order, each beginning where the former ends
   */
  public static Piecewise of(String name, List<Piece> pieces) {
    return new Piecewise(name, pieces, null);
  }

  /** The same function with a smaller part on which it may be turned round. */
  public Piecewise invertibleOn(Span part) {
    return new Piecewise(name, pieces, part);
  }

  /** Straight lines through points with rising {@code x}. */
  public static Piecewise lines(String name, double[] x, double[] y) {
    var list = new Piece[x.length - 1];
    for (int i = 0; i < list.length; i++) {
      double slope = (y[i + 1] - y[i]) / (x[i + 1] - x[i]);
      list[i] = new Piece(x[i], x[i + 1], x[i], new double[] {y[i], slope}, null);
    }
    return of(name, List.of(list));
  }

  /**
   * The monotone cubic through points with rising {@code x}: Fritsch and Carlson, "Monotone
   * piecewise cubic interpolation", SIAM J. Numer. Anal. 17 (1980), with the slopes of Fritsch and
   * Butland (SIAM J. Sci. Stat. Comput. 5, 1984), which need no second pass.
   */
  public static Piecewise monotoneCubic(String name, double[] x, double[] y) {
    int n = x.length;
    if (n == 2) return lines(name, x, y);
    double[] h = new double[n - 1];
    double[] chord = new double[n - 1];
    for (int i = 0; i < n - 1; i++) {
      h[i] = x[i + 1] - x[i];
      chord[i] = (y[i + 1] - y[i]) / h[i];
    }
    double[] slope = new double[n];
    for (int i = 1; i < n - 1; i++) {
      if (chord[i - 1] * chord[i] <= 0) continue;
      double a = 2 * h[i] + h[i - 1];
      double b = h[i] + 2 * h[i - 1];
      slope[i] = (a + b) / (a / chord[i - 1] + b / chord[i]);
    }
    slope[0] = end(h[0], h[1], chord[0], chord[1]);
    slope[n - 1] = end(h[n - 2], h[n - 3], chord[n - 2], chord[n - 3]);
    var list = new Piece[n - 1];
    for (int i = 0; i < n - 1; i++) {
      double c2 = (3 * chord[i] - 2 * slope[i] - slope[i + 1]) / h[i];
      double c3 = (slope[i] + slope[i + 1] - 2 * chord[i]) / (h[i] * h[i]);
      list[i] = new Piece(x[i], x[i + 1], x[i], new double[] {y[i], slope[i], c2, c3}, null);
    }
    return of(name, List.of(list));
  }

  /** Three-point slope at an end, held back so that the curve stays monotone. */
  private static double end(double h0, double h1, double chord0, double chord1) {
    double s = ((2 * h0 + h1) * chord0 - h0 * chord1) / (h0 + h1);
    if (s * chord0 <= 0) return 0;
    return chord0 * chord1 <= 0 && Math.abs(s) > 3 * Math.abs(chord0) ? 3 * chord0 : s;
  }

  public List<Piece> pieces() {
    return pieces;
  }

  @Override
  public String name() {
    return name;
  }

  @Override
  public Span domain() {
    return domain;
  }

  @Override
  public Span branch() {
    return branch;
  }

  @Override
  public double known(double x) {
    return piece(x).value(x);
  }

  @Override
  public double knownSlope(double x) {
    return piece(x).slope(x);
  }

  /** A break-point belongs to the piece below it, as in the generated code: E(0 °C) is 0 mV. */
  private Piece piece(double x) {
    int i = Arrays.binarySearch(starts, x);
    return pieces.get(Math.max(0, i >= 0 ? i - 1 : -i - 2));
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof Piecewise p && p.name.equals(name) && same(p);
  }

  private boolean same(Piecewise p) {
    if (p.pieces.size() != pieces.size()) return false;
    for (int i = 0; i < pieces.size(); i++) {
      Piece a = pieces.get(i);
      Piece b = p.pieces.get(i);
      if (a.from != b.from || a.to != b.to || !Arrays.equals(a.coefficients, b.coefficients)) {
        return false;
      }
    }
    return true;
  }

  @Override
  public int hashCode() {
    return name.hashCode() + 31 * pieces.size();
  }
}
