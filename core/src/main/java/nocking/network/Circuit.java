package nocking.network;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;

/**
 * A circuit of resistors, voltage sources and ideal operational amplifiers between named nodes.
 *
 * <p>The node called {@link #GROUND} is 0 V. Amplifiers are ideal: no input current, equal inputs,
 * no rails; rails are the business of the path, which knows them.
 */
public final class Circuit {
  public static final String GROUND = "0";

  private sealed interface Part {}

  /** A resistor between two nodes. */
  public record Resistor(String a, String b, double ohms) implements Part {}

  private record Current(String from, String to, double amperes) implements Part {}

  private record Source(String plus, String minus, double volts) implements Part {}

  private record Controlled(String plus, String minus, String out, String reference, double gain)
      implements Part {}

  private record Amplifier(String plus, String minus, String out) implements Part {}

  private final List<Part> parts = new ArrayList<>();
  private final Map<String, Integer> nodes = new LinkedHashMap<>();

  /** Adds a resistor; {@code ohms} above 0. */
  public Circuit resistor(String a, String b, double ohms) {
    if (!(ohms > 0))
      throw new IllegalArgumentException("a resistor must be above 0 Ω, not " + ohms);
    add(new Resistor(a, b, ohms), a, b);
    return this;
  }

  /** Adds an ideal voltage source: V(plus) − V(minus) = volts. */
  public Circuit source(String plus, String minus, double volts) {
    add(new Source(plus, minus, volts), plus, minus);
    return this;
  }

  /** Adds an ideal current source that drives {@code amperes} out of {@code to}. */
  public Circuit current(String from, String to, double amperes) {
    add(new Current(from, to, amperes), from, to);
    return this;
  }

  /** Adds an ideal operational amplifier with feedback somewhere else in the circuit. */
  public Circuit amplifier(String plus, String minus, String out) {
    add(new Amplifier(plus, minus, out), plus, minus, out);
    return this;
  }

  /** Adds a controlled source: V(out) − V(reference) = gain·(V(plus) − V(minus)). */
  public Circuit controlled(String plus, String minus, String out, String reference, double gain) {
    add(new Controlled(plus, minus, out, reference, gain), plus, minus, out, reference);
    return this;
  }

  /** The resistors in the order in which they were added. */
  public List<Resistor> resistors() {
    return parts.stream().filter(Resistor.class::isInstance).map(Resistor.class::cast).toList();
  }

  private void add(Part part, String... names) {
    parts.add(part);
    for (String name : names) {
      if (!name.equals(GROUND)) nodes.putIfAbsent(name, nodes.size());
    }
  }

  /**
   * Voltage of every node against ground, in volts.
   *
   * @throws IllegalStateException when a node floats or sources contradict each other
   */
  public Map<String, Double> solve() {
    int extra =
        (int) parts.stream().filter(p -> !(p instanceof Resistor || p instanceof Current)).count();
    int n = nodes.size() + extra;
    var matrix = new double[n][n];
    var right = new double[n];
    int row = nodes.size();
    for (Part part : parts) {
      switch (part) {
        case Resistor r -> stamp(matrix, r);
        case Current c -> {
          if (index(c.from) >= 0) right[index(c.from)] -= c.amperes;
          if (index(c.to) >= 0) right[index(c.to)] += c.amperes;
        }
        case Source s -> {
          stampBranch(matrix, row, s.plus, 1);
          stampBranch(matrix, row, s.minus, -1);
          right[row++] = s.volts;
        }
        case Controlled c -> {
          addTo(matrix, row, index(c.out), 1);
          addTo(matrix, row, index(c.reference), -1);
          addTo(matrix, row, index(c.plus), -c.gain);
          addTo(matrix, row, index(c.minus), c.gain);
          addTo(matrix, index(c.out), row, 1);
          addTo(matrix, index(c.reference), row++, -1);
        }
        case Amplifier a -> {
          addTo(matrix, row, index(a.plus), 1);
          addTo(matrix, row, index(a.minus), -1);
          addTo(matrix, index(a.out), row++, 1);
        }
      }
    }
    try {
      var lu = new LUDecomposition(new Array2DRowRealMatrix(matrix, false), 1e-18);
      var x = lu.getSolver().solve(new ArrayRealVector(right, false));
      var volts = new TreeMap<String, Double>();
      volts.put(GROUND, 0.0);
      nodes.forEach((name, i) -> volts.put(name, x.getEntry(i)));
      return volts;
    } catch (MathRuntimeException e) {
      throw new IllegalStateException("a node floats or sources contradict each other", e);
    }
  }

  private int index(String node) {
    return node.equals(GROUND) ? -1 : nodes.get(node);
  }

  private void stamp(double[][] m, Resistor r) {
    double g = 1 / r.ohms;
    int a = index(r.a);
    int b = index(r.b);
    addTo(m, a, a, g);
    addTo(m, b, b, g);
    addTo(m, a, b, -g);
    addTo(m, b, a, -g);
  }

  private void stampBranch(double[][] m, int row, String node, double sign) {
    addTo(m, row, index(node), sign);
    addTo(m, index(node), row, sign);
  }

  private static void addTo(double[][] m, int i, int j, double value) {
    if (i >= 0 && j >= 0) m[i][j] += value;
  }
}
