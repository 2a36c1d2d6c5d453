package nocking.analysis;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import nocking.element.Field;
import nocking.path.ParameterRef;
import nocking.path.PathState;
import nocking.path.SignalPath;
import nocking.quantity.Dimension;
import nocking.quantity.Numbers;
import nocking.quantity.Quantity;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;
import nocking.quantity.UnitCatalogue;
import nocking.view.ProbeState;

/**
 * The scratch line: an expression with units, prefixes, {@code ||} and the channel's own symbols.
 *
 * <pre>
 *   4k7 || 10k                 3.197 k
 *   25 psi in kPa              172.4 kPa
 *   0.16 kg in % of 60 kg      0.2667 %
 *   Vout at 12 degC            2.46 V
 *   reading at 12 degC         12.00 °C
 *   R2/(R1+R2)                 0.6623
 * </pre>
 */
public final class Scratch {
  private static final Pattern IN_PERCENT = Pattern.compile("(.+?)\\s+in\\s+%\\s+of\\s+(.+)");
  private static final Pattern IN_UNIT = Pattern.compile("(.+)\\s+in\\s+(\\S+)");
  private static final Pattern AT = Pattern.compile("(.+?)\\s+at\\s+(.+)");
  private static final int DIGITS = 4;

  private final Analysis analysis;
  private final double probe;

  private Scratch(Analysis analysis, double probe) {
    this.analysis = analysis;
    this.probe = probe;
  }

  /**
   * The answer with its unit.
   *
   * @param analysis channel whose symbols are known
   * @param probe input at which test points are read where the line does not say {@code at}
   * @throws QuantityException one sentence that says what was read and what was expected
   */
  public static String answer(String line, Analysis analysis, double probe) {
    return new Scratch(analysis, probe).answer(line.strip());
  }

  private String answer(String line) {
    Matcher percent = IN_PERCENT.matcher(line);
    if (percent.matches()) {
      Quantity share = evaluate(percent.group(1)).over(evaluate(percent.group(2)));
      return show(share, Unit.PERCENT);
    }
    Matcher in = IN_UNIT.matcher(line);
    if (in.matches()) return show(evaluate(in.group(1)), UnitCatalogue.parse(in.group(2)));
    return show(evaluate(line));
  }

  private Quantity evaluate(String expression) {
    Matcher at = AT.matcher(expression.strip());
    if (!at.matches()) return valueAt(expression, probe);
    Unit unit = analysis.channel().unit();
    double x = QuantityParser.value(at.group(2), unit);
    return valueAt(at.group(1), x);
  }

  private Quantity valueAt(String expression, double x) {
    return QuantityParser.evaluate(expression, name -> symbol(name, x));
  }

  private Optional<Quantity> symbol(String name, double x) {
    Optional<SignalPath> path = analysis.design().path();
    if (path.isEmpty()) return Optional.empty();
    Unit unit = analysis.channel().unit();
    if (name.equals(path.get().quantitySymbol())) return Optional.of(Quantity.of(x, unit));
    ProbeState state = analysis.at(x).orElseThrow();
    if (name.equals("reading")) return Optional.of(Quantity.of(state.reading(), unit));
    if (name.equals("raw") || name.equals("code")) {
      return Optional.of(Quantity.of(state.readOut().code(), Unit.COUNTS));
    }
    for (PathState.Node n : state.readOut().nodes()) {
      if (n.point().name().equals(name) || n.point().symbol().equals(name)) {
        return Optional.of(Quantity.of(n.value(), n.point().unit()));
      }
    }
    ParameterRef owner = path.get().owners().get(name);
    if (owner == null) return Optional.empty();
    return Optional.of(parameter(owner.field(), path.get().constants().get(name), unit));
  }

  private static Quantity parameter(Field field, double value, Unit quantity) {
    return Quantity.of(value, field.unit(quantity));
  }

  private static String show(Quantity q, Unit unit) {
    return (Numbers.trimmed(q.in(unit), DIGITS) + " " + unit.symbol()).strip();
  }

  /** Shows a quantity in the channel's unit where it is one, else in SI with a prefix. */
  private String show(Quantity q) {
    Unit own = analysis.channel().unit();
    if (!q.dimension().isNone() && q.dimension().equals(own.dimension())) return show(q, own);
    if (q.dimension().isNone()) return plain(q.si());
    if (q.zero() != 0) return show(q, Unit.of("°C"));
    Optional<Unit> known =
        Stream.of("V", "Ω", "A", "W", "F", "Hz", "s", "m", "Pa", "N", "J", "K", "g")
            .map(Unit::of)
            .filter(u -> u.dimension().equals(q.dimension()))
            .findFirst();
    if (known.isPresent()) {
      return Numbers.engineering(q.si() / known.get().factor(), known.get().symbol(), DIGITS);
    }
    if (q.dimension().equals(Dimension.COUNT)) return show(q, Unit.COUNTS);
    return Numbers.trimmed(q.si(), DIGITS) + " " + q.dimension().baseSymbol();
  }

  private static String plain(double v) {
    boolean scaled = Math.abs(v) >= 1e4 || (Math.abs(v) < 1e-3 && v != 0);
    return scaled ? Numbers.engineering(v, "", DIGITS + 1).strip() : Numbers.trimmed(v, DIGITS + 1);
  }
}
