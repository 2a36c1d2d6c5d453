package nocking.demo;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.QRDecomposition;

/**
 * A circuit written down by hand and solved as a tableau: every part states its current, every node
 * its sum. It shares nothing with the solver that it is the referee of.
 */
final class Netlist {
  private record Part(String a, String b, double conductance, double volts, double amperes) {}

  private record Follower(String plus, String minus, String out, String reference, double gain) {}

  private final List<Part> parts = new ArrayList<>();
  private final List<Follower> followers = new ArrayList<>();
  private final Map<String, Integer> nodes = new LinkedHashMap<>();

  private int node(String name) {
    return name.equals("0") ? -1 : nodes.computeIfAbsent(name, k -> nodes.size());
  }

  Netlist r(String a, String b, double ohms) {
    if (!Double.isInfinite(ohms)) add(a, b, 1 / ohms, Double.NaN, 0);
    else register(a, b);
    return this;
  }

  Netlist v(String plus, String minus, double volts) {
    add(plus, minus, 0, volts, 0);
    return this;
  }

  /** Current out of {@code to}. */
  Netlist i(String from, String to, double amperes) {
    add(to, from, 0, Double.NaN, amperes);
    return this;
  }

  Netlist e(String plus, String minus, String out, String reference, double gain) {
    followers.add(new Follower(plus, minus, out, reference, gain));
    register(plus, minus);
    register(out, reference);
    return this;
  }

  private void register(String a, String b) {
    node(a);
    node(b);
  }

  private void add(String a, String b, double conductance, double volts, double amperes) {
    register(a, b);
    parts.add(new Part(a, b, conductance, volts, amperes));
  }

  /** Unknowns: node voltages, then the current through every part from a to b. */
  Map<String, Double> solve() {
    int n = nodes.size();
    int m = parts.size() + followers.size();
    var matrix = new double[n + m][n + m];
    var right = new double[n + m];
    for (int k = 0; k < parts.size(); k++) {
      Part p = parts.get(k);
      current(matrix, p.a, p.b, n + k);
      int row = n + k;
      if (!Double.isNaN(p.volts)) {
        put(matrix, row, p.a, 1);
        put(matrix, row, p.b, -1);
        right[row] = p.volts;
      } else if (p.conductance > 0) {
        put(matrix, row, p.a, 1);
        put(matrix, row, p.b, -1);
        matrix[row][n + k] = -1 / p.conductance;
      } else {
        matrix[row][n + k] = 1;
        right[row] = -p.amperes;
      }
    }
    for (int k = 0; k < followers.size(); k++) {
      Follower f = followers.get(k);
      int row = n + parts.size() + k;
      current(matrix, f.out, f.reference, row);
      put(matrix, row, f.out, 1);
      put(matrix, row, f.reference, -1);
      put(matrix, row, f.plus, -f.gain);
      put(matrix, row, f.minus, f.gain);
    }
    // A node that nothing joins is at 0 V, which no test looks at.
    for (int i = 0; i < n; i++) {
      boolean alone = true;
      for (double c : matrix[i]) alone &= c == 0;
      if (alone) matrix[i][i] = 1;
    }
    var x =
        new QRDecomposition(new Array2DRowRealMatrix(matrix, false))
            .getSolver()
            .solve(new ArrayRealVector(right));
    var volts = new LinkedHashMap<String, Double>();
    volts.put("0", 0.0);
    nodes.forEach((name, i) -> volts.put(name, x.getEntry(i)));
    return volts;
  }

  private void current(double[][] m, String a, String b, int column) {
    if (node(a) >= 0) m[node(a)][column] += 1;
    if (node(b) >= 0) m[node(b)][column] -= 1;
  }

  private void put(double[][] m, int row, String node, double value) {
    if (node(node) >= 0) m[row][node(node)] += value;
  }
}
