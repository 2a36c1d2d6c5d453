package nocking.network;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import nocking.algebra.Roots;
import nocking.quantity.Span;

/**
 * A circuit of resistors, sources and operational amplifiers between named nodes.
 *
 * <p>The node called {@link #GROUND} is 0 V. Amplifiers are ideal: no input current, equal inputs.
 * {@link #solve} knows no rails and refuses a circuit that has no single solution; {@link
 * #operatingPoint} lets outputs stop at their limits and says which nodes float.
 */
public final class Circuit {
  public static final String GROUND = "0";

  /** What is left where two conductors touch, ohms. */
  public static final double CONTACT = 0.1;

  /** Open-loop gain by which an amplifier without working feedback is driven against a rail. */
  private static final double OPEN_LOOP = 1e7;

  private static final int MOST_LIMITED = 32;

  /** What stands for an open part where a node would else be held by nothing, ohms. */
  private static final double LEAK = 1e10;

  private sealed interface Part {}

  /**
   * A resistor between two nodes.
   *
   * @param owner number of the element that it belongs to; −1 for none
   * @param name in its element; empty for one that is no part of its own
   */
  public record Resistor(int owner, String name, String a, String b, double ohms) implements Part {}

  private record Current(String from, String to, double amperes) implements Part {}

  private record Source(String plus, String minus, double volts) implements Part {}

  private record Controlled(String plus, String minus, String out, String reference, double gain)
      implements Part {}

  private record Amplifier(String plus, String minus, String out) implements Part {}

  /** A transmitter: drives its current while {@code needs} volts are left across it. */
  private record Loop(String from, String to, double amperes, double needs) implements Part {}

  /** A transmitter that has just the volts left that it needs. */
  private record Starved(String plus, String minus, double volts) implements Part {}

  /**
   * A bridge with a smoothing capacitor, in the mean over the periods of its alternating input.
   *
   * @param in carries the peak of the alternating voltage
   * @param drop both diodes, volts
   * @param series what half the ripple comes to, ohms
   * @param pulses refills a period: 2, or 1 with a diode missing; 0 without the capacitor
   * @param share current drawn from {@code in}, as far as it lowers the peak, for the current given
   * @param off true while the peak does not reach the drops and what stands behind them
   */
  private record Rectifier(
      String in, String out, double drop, double series, int pulses, double share, boolean off)
      implements Part {
    Rectifier drawing(double share) {
      return new Rectifier(in, out, drop, series, pulses, share, off);
    }
  }

  private final List<Part> parts = new ArrayList<>();
  private final Map<String, Integer> nodes = new LinkedHashMap<>();
  private final Map<String, Span> limits = new LinkedHashMap<>();
  private int owner = -1;

  /** Names the element that the resistors added from now on belong to. */
  public Circuit of(int element) {
    owner = element;
    return this;
  }

  /** Adds a resistor that is no part of its own; {@code ohms} above 0. */
  public Circuit resistor(String a, String b, double ohms) {
    return resistor("", a, b, ohms);
  }

  /** Adds a resistor under its name in the element; {@code ohms} above 0. */
  public Circuit resistor(String name, String a, String b, double ohms) {
    if (!(ohms > 0))
      throw new IllegalArgumentException("a resistor must be above 0 Ω, not " + ohms);
    add(new Resistor(owner, name, a, b, ohms), a, b);
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

  /**
   * Adds a transmitter that drives {@code amperes} from {@code from} to {@code to} as long as
   * {@code needs} volts are left between them, and no more than that leaves.
   */
  public Circuit loop(String from, String to, double amperes, double needs) {
    add(new Loop(from, to, amperes, needs), from, to);
    return this;
  }

  /**
   * Adds a bridge rectifier with a smoothing capacitor that is large for what is drawn from it.
   *
   * <p>The diodes conduct only about the peak, over ±θ. Behind a source of resistance R_s, with R
   * the resistance of all that it feeds, the mean balance of charge gives tan θ − θ = πR_s/(nR), n
   * refills a period, and the output comes to cos θ of the peak less the drops (Schade, "Analysis
   * of Rectifier Operation", Proc. IRE 31, 1943; the drops are taken from the source, which is good
   * while they are small against the peak).
   *
   * @param in node that carries the peak of the alternating voltage
   * @param drop both diodes, volts, at least 0
   * @param series ohms that stand for half the ripple, above 0
   */
  public Circuit rectifier(String in, String out, double drop, double series) {
    add(new Rectifier(in, out, drop, series, 2, 1, false), in, out);
    return this;
  }

  /** The rectifier with a diode missing refills once a period; without capacitor not at all. */
  public void refill(String out, int pulses) {
    parts.replaceAll(
        p ->
            p instanceof Rectifier r && r.out.equals(out)
                ? new Rectifier(
                    r.in, r.out, r.drop, pulses == 0 ? 0 : r.series, pulses, r.share, r.off)
                : p);
  }

  /**
   * Current that a rectifier draws, as far as it lowers the peak at its input, for the current it
   * gives; 1 where its source is stiff.
   */
  public double rectifierShare(String out) {
    return conducting(parts).stream()
        .filter(p -> p instanceof Rectifier r && r.out.equals(out))
        .mapToDouble(p -> ((Rectifier) p).share)
        .findFirst()
        .orElseThrow();
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

  /** Volts that a node cannot leave: the rails of what drives it. */
  public Circuit limit(String node, Span volts) {
    limits.put(node, volts);
    return this;
  }

  /** The resistors in the order in which they were added. */
  public List<Resistor> resistors() {
    return parts.stream().filter(Resistor.class::isInstance).map(Resistor.class::cast).toList();
  }

  /** Multiplies a named resistor; 0 leaves only the contact, infinity takes it out. */
  public void scale(int element, String name, double factor) {
    for (int i = 0; i < parts.size(); i++) {
      if (parts.get(i) instanceof Resistor r && r.owner == element && r.name.equals(name)) {
        double ohms = factor == 0 ? CONTACT : r.ohms * factor;
        if (Double.isInfinite(ohms)) parts.remove(i--);
        else parts.set(i, new Resistor(r.owner, r.name, r.a, r.b, ohms));
      }
    }
  }

  /** Takes out the source that feeds a node. */
  public void cut(String plus) {
    parts.removeIf(p -> p instanceof Source s && s.plus.equals(plus));
  }

  /** Multiplies the volts of the source that feeds a node. */
  public void feed(String plus, double factor) {
    parts.replaceAll(
        p ->
            p instanceof Source s && s.plus.equals(plus)
                ? new Source(s.plus, s.minus, s.volts * factor)
                : p);
  }

  /** The same circuit, to which parts can be added without changing this one. */
  public Circuit copy() {
    var next = new Circuit();
    next.parts.addAll(parts);
    next.nodes.putAll(nodes);
    next.limits.putAll(limits);
    return next;
  }

  /** True when a source feeds the node. */
  public boolean feeds(String plus) {
    return parts.stream().anyMatch(p -> p instanceof Source s && s.plus.equals(plus));
  }

  public boolean has(String node) {
    return node.equals(GROUND) || nodes.containsKey(node);
  }

  private void add(Part part, String... names) {
    parts.add(part);
    for (String name : names) {
      if (!name.equals(GROUND)) nodes.putIfAbsent(name, nodes.size());
    }
  }

  /**
   * Voltage of every node against ground, in volts, without rails.
   *
   * @throws IllegalStateException when a node floats or sources contradict each other
   */
  public Map<String, Double> solve() {
    double[] x = solution(conducting(parts), false);
    if (x == null) {
      throw new IllegalStateException("a node floats or sources contradict each other");
    }
    var volts = new TreeMap<String, Double>();
    volts.put(GROUND, 0.0);
    nodes.forEach((name, i) -> volts.put(name, x[i]));
    return volts;
  }

  /**
   * Where the circuit comes to rest, outputs held at their limits. A floating node is taken to each
   * of {@code float}'s ends, since nothing holds it.
   *
   * @throws IllegalStateException when sources contradict each other
   */
  public OperatingPoint operatingPoint(Span floating) {
    List<List<String>> loose = looseGroups();
    if (loose.isEmpty()) {
      double[] x = limited(parts);
      return new OperatingPoint(x, x);
    }
    return new OperatingPoint(
        limited(held(loose, floating.low())), limited(held(loose, floating.high())));
  }

  /** Every loose group taken to a voltage, but no further than what limits one of its nodes. */
  private List<Part> held(List<List<String>> loose, double volts) {
    var all = new ArrayList<>(parts);
    for (List<String> group : loose) {
      double v = volts;
      for (String node : group) {
        if (limits.containsKey(node) && !driven(node)) v = limits.get(node).clamp(v);
      }
      all.add(new Source(group.getFirst(), GROUND, v));
    }
    return all;
  }

  /** True when an amplifier gives the node its voltage. */
  private boolean driven(String node) {
    return parts.stream()
        .anyMatch(
            p ->
                p instanceof Amplifier a && a.out.equals(node)
                    || p instanceof Controlled c && c.out.equals(node));
  }

  /** Node voltages at rest, once for each end of what a floating node may be. */
  public final class OperatingPoint {
    private final double[] low;
    private final double[] high;

    private OperatingPoint(double[] low, double[] high) {
      this.low = low;
      this.high = high;
    }

    /**
     * Volts of {@code plus} against {@code minus}; the middle of what they may be if they float.
     */
    public double volts(String plus, String minus) {
      return (difference(low, plus, minus) + difference(high, plus, minus)) / 2;
    }

    /** What the volts of {@code plus} against {@code minus} may be. */
    public Span span(String plus, String minus) {
      return Span.between(difference(low, plus, minus), difference(high, plus, minus));
    }

    /** True when nothing holds the voltage between the two nodes. */
    public boolean floats(String plus, String minus) {
      Span s = span(plus, minus);
      return s.width() > 1e-6 * Math.max(1, Math.abs(s.high()));
    }

    private double difference(double[] x, String plus, String minus) {
      return of(x, plus) - of(x, minus);
    }

    private double of(double[] x, String node) {
      return node.equals(GROUND) ? 0 : x[nodes.get(node)];
    }
  }

  /**
   * The groups of nodes that nothing joins to ground. A current source joins nothing: without
   * another way its current does not say where the node is.
   */
  private List<List<String>> looseGroups() {
    int[] leader = new int[nodes.size() + 1];
    for (int i = 0; i < leader.length; i++) leader[i] = i;
    for (Part part : parts) {
      switch (part) {
        case Resistor r -> join(leader, r.a, r.b);
        case Source s -> join(leader, s.plus, s.minus);
        case Controlled c -> join(leader, c.out, c.reference);
        case Amplifier a -> join(leader, a.out, GROUND);
        case Loop l -> join(leader, l.from, l.to);
        case Starved s -> join(leader, s.plus, s.minus);
        case Rectifier r -> join(leader, r.in, r.out);
        case Current c -> {}
      }
    }
    int ground = root(leader, nodes.size());
    var groups = new LinkedHashMap<Integer, List<String>>();
    for (var node : nodes.entrySet()) {
      int r = root(leader, node.getValue());
      if (r != ground) groups.computeIfAbsent(r, k -> new ArrayList<>()).add(node.getKey());
    }
    return List.copyOf(groups.values());
  }

  private void join(int[] leader, String a, String b) {
    int from = root(leader, a.equals(GROUND) ? nodes.size() : nodes.get(a));
    int to = root(leader, b.equals(GROUND) ? nodes.size() : nodes.get(b));
    leader[from] = to;
  }

  private static int root(int[] leader, int i) {
    int r = i;
    while (leader[r] != r) r = leader[r];
    return r;
  }

  /**
   * Solves, then holds the first output that has left its limits at the limit, until none does:
   * signals run one way, so what comes later follows from what comes before.
   */
  private double[] limited(List<Part> given) {
    boolean oneWay = oneWay(given);
    List<Part> now = new ArrayList<>(oneWay ? conducting(given) : given);
    var held = new HashMap<String, Double>();
    for (int round = 0; round < MOST_LIMITED; round++) {
      double[] x = solution(now, false);
      if (x == null) x = solution(now, true);
      if (oneWay && (shutOff(now, x) || starve(now, x))) {
        now = new ArrayList<>(conducting(now));
        continue;
      }
      if (x == null) throw new IllegalStateException("sources contradict each other");
      String out = beyond(x, held);
      if (out == null) return x;
      double at = limits.get(out).clamp(x[nodes.get(out)]);
      now.removeIf(
          p ->
              p instanceof Amplifier a && a.out.equals(out)
                  || p instanceof Controlled c && c.out.equals(out));
      now.add(new Source(out, GROUND, at));
      held.put(out, at);
    }
    throw new IllegalStateException("the circuit does not come to rest");
  }

  /** True where a part lets current through one way only, or no more than so much. */
  private static boolean oneWay(List<Part> all) {
    for (Part p : all) if (p instanceof Rectifier || p instanceof Loop) return true;
    return false;
  }

  /** Takes out the first rectifier whose diodes would have to conduct backwards. */
  private boolean shutOff(List<Part> now, double[] x) {
    for (int i = 0; x != null && i < now.size(); i++) {
      if (!(now.get(i) instanceof Rectifier r) || r.off) continue;
      if (x[row(now, i)] >= -1e-15) continue;
      now.set(i, new Rectifier(r.in, r.out, r.drop, r.series, r.pulses, r.share, true));
      now.add(new Resistor(-1, "", r.out, GROUND, LEAK));
      // It may have been all that joined what is before it to ground.
      now.add(new Resistor(-1, "", r.in, GROUND, LEAK));
      return true;
    }
    return false;
  }

  /**
   * A transmitter lets its current through while enough is left for it; less leaves it as much as
   * the rest of the loop allows, and against its direction it lets nothing through.
   */
  private boolean starve(List<Part> now, double[] x) {
    for (int i = 0; i < now.size(); i++) {
      switch (now.get(i)) {
        case Loop l -> {
          if (x != null && volt(x, l.from) - volt(x, l.to) >= l.needs - 1e-9) continue;
          now.set(i, new Starved(l.from, l.to, l.needs));
          return true;
        }
        case Starved s -> {
          // The branch current flows from plus to minus through the part.
          if (x == null || x[row(now, i)] >= -1e-15) continue;
          now.set(i, new Resistor(-1, "", s.plus, s.minus, LEAK));
          return true;
        }
        default -> {}
      }
    }
    return false;
  }

  /** Place of a part's own unknown, its current, in the solution. */
  private int row(List<Part> all, int part) {
    int row = nodes.size();
    for (int i = 0; i < part; i++) if (hasCurrent(all.get(i))) row++;
    return row;
  }

  private static boolean hasCurrent(Part p) {
    return !(p instanceof Resistor || p instanceof Current || p instanceof Loop);
  }

  /** The parts with every rectifier drawing what it does; no rails, and none of them shut off. */
  private List<Part> conducting(List<Part> given) {
    if (given.stream().noneMatch(Rectifier.class::isInstance)) return given;
    var now = new ArrayList<>(given);
    for (int i = 0; i < now.size(); i++) {
      if (!(now.get(i) instanceof Rectifier r) || r.off || r.pulses == 0) continue;
      double source = resistanceAt(given, r.in, i);
      // A stiff source does not care what is drawn.
      if (!(source > 0)) continue;
      for (int round = 0; round < MOST_LIMITED; round++) {
        double[] x = solution(now, false);
        if (x == null) break;
        var present = (Rectifier) now.get(i);
        double amperes = x[row(now, i)];
        double behind = (volt(x, r.in) - r.drop) / amperes;
        if (!(behind > 0) || Double.isInfinite(behind)) break;
        double angle = conductionAngle(Math.PI * source / (r.pulses * behind));
        double share = behind * (1 - Math.cos(angle)) / (source * Math.cos(angle));
        now.set(i, present.drawing(share));
        if (Math.abs(share - present.share) <= 1e-13 * share) break;
      }
    }
    return now;
  }

  /** θ with tan θ − θ = {@code load}, 0 … π/2, by Newton's method on a bracket. */
  private static double conductionAngle(double load) {
    return Roots.monotone(
        a -> Math.sin(a) - (a + load) * Math.cos(a),
        a -> (a + load) * Math.sin(a),
        new Span(0, Math.PI / 2),
        0);
  }

  /** Resistance that a node shows with the part at an index taken away. */
  private double resistanceAt(List<Part> all, String node, int without) {
    var open = new ArrayList<>(all);
    var r = (Rectifier) open.get(without);
    open.set(without, new Resistor(-1, "", r.out, GROUND, LEAK));
    double[] before = solution(open, false);
    open.add(new Current(node, GROUND, 1e-3));
    double[] after = solution(open, false);
    if (before == null || after == null) return 0;
    double ohms = (volt(before, node) - volt(after, node)) / 1e-3;
    return ohms > 1e-6 ? ohms : 0;
  }

  private String beyond(double[] x, Map<String, Double> held) {
    for (var e : limits.entrySet()) {
      if (held.containsKey(e.getKey())) continue;
      double v = x[nodes.get(e.getKey())];
      double slack = 1e-12 * Math.max(1, Math.abs(v));
      if (v < e.getValue().low() - slack || v > e.getValue().high() + slack) return e.getKey();
    }
    return null;
  }

  private double volt(double[] x, String node) {
    return node.equals(GROUND) ? 0 : x[nodes.get(node)];
  }

  /** Modified nodal analysis (Ho, Ruehli and Brennan 1975); null when it is singular. */
  private double[] solution(List<Part> all, boolean finiteGain) {
    int extra = 0;
    for (Part p : all) {
      if (hasCurrent(p)) extra++;
    }
    int n = nodes.size() + extra;
    var matrix = new double[n][n + 1];
    int row = nodes.size();
    for (Part part : all) {
      switch (part) {
        case Resistor r -> stamp(matrix, index(r.a), index(r.b), 1 / r.ohms);
        case Current c -> drive(matrix, n, c.from, c.to, c.amperes);
        case Loop l -> drive(matrix, n, l.from, l.to, l.amperes);
        case Source s -> {
          branch(matrix, row, s.plus, 1);
          branch(matrix, row, s.minus, -1);
          matrix[row++][n] = s.volts;
        }
        case Starved t -> {
          branch(matrix, row, t.plus, 1);
          branch(matrix, row, t.minus, -1);
          matrix[row++][n] = t.volts;
        }
        case Rectifier r -> rectify(matrix, row++, r);
        case Controlled c -> control(matrix, row++, c.plus, c.minus, c.out, c.reference, c.gain);
        case Amplifier a -> {
          if (finiteGain) {
            control(matrix, row++, a.plus, a.minus, a.out, GROUND, OPEN_LOOP);
          } else {
            addTo(matrix, row, index(a.plus), 1);
            addTo(matrix, row, index(a.minus), -1);
            addTo(matrix, index(a.out), row++, 1);
          }
        }
      }
    }
    return Elimination.solve(matrix);
  }

  private int index(String node) {
    return node.equals(GROUND) ? -1 : nodes.get(node);
  }

  private void rectify(double[][] m, int row, Rectifier r) {
    if (r.off) {
      m[row][row] = 1;
      return;
    }
    addTo(m, index(r.out), row, -1);
    addTo(m, index(r.in), row, r.share);
    addTo(m, row, index(r.in), 1);
    addTo(m, row, index(r.out), -1);
    m[row][row] = -r.series;
    m[row][m.length] = r.drop;
  }

  private void drive(double[][] m, int right, String from, String to, double amperes) {
    if (index(from) >= 0) m[index(from)][right] -= amperes;
    if (index(to) >= 0) m[index(to)][right] += amperes;
  }

  private void control(
      double[][] m, int row, String plus, String minus, String out, String reference, double gain) {
    addTo(m, row, index(out), 1);
    addTo(m, row, index(reference), -1);
    addTo(m, row, index(plus), -gain);
    addTo(m, row, index(minus), gain);
    addTo(m, index(out), row, 1);
    addTo(m, index(reference), row, -1);
  }

  private static void stamp(double[][] m, int a, int b, double g) {
    addTo(m, a, a, g);
    addTo(m, b, b, g);
    addTo(m, a, b, -g);
    addTo(m, b, a, -g);
  }

  private void branch(double[][] m, int row, String node, double sign) {
    addTo(m, row, index(node), sign);
    addTo(m, index(node), row, sign);
  }

  private static void addTo(double[][] m, int i, int j, double value) {
    if (i >= 0 && j >= 0) m[i][j] += value;
  }
}
