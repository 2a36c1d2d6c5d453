package nocking.fit;

import java.util.LinkedHashMap;
import nocking.algebra.Expr;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * A correction on top of a curve and apart from it: y = r + f·(q − q_r), with q what the curve
 * says. The zero alone moves all by as much (f = 1); with a second point the span is stretched
 * about the zero, f = (a − r)/(q_a − q_r).
 *
 * @param rest r, true quantity at rest
 * @param restRead q_r, what the curve said there
 * @param at a, true quantity at the second point; null for a zero trim alone
 * @param atRead q_a, what the curve said there; null together with {@code at}
 */
public record Trim(Value rest, Value restRead, Value at, Value atRead) {
  private static final String ZERO = "z0";
  private static final String READ = "zr";
  private static final String SPAN = "ks";

  public Trim {
    if (rest == null || restRead == null) {
      throw new QuantityException("a trim needs its zero: what it is, and what was read");
    }
    if ((at == null) != (atRead == null)) {
      throw new QuantityException("the span of a trim needs both what it is and what was read");
    }
    if (at != null && (at.number() == rest.number() || atRead.number() == restRead.number())) {
      throw new QuantityException("zero and span of a trim are the same point");
    }
  }

  /** By how much the zero was off: what was read less what it is. */
  public double offset() {
    return restRead.number() - rest.number();
  }

  /** By what the span is stretched; 1 for a zero trim alone. */
  public double factor() {
    if (at == null) return 1;
    return (at.number() - rest.number()) / (atRead.number() - restRead.number());
  }

  /** What the curve says, trimmed. */
  public double of(double quantity) {
    return rest.number() + factor() * (quantity - restRead.number());
  }

  /** What the curve says where it says this trimmed. */
  public double before(double trimmed) {
    return restRead.number() + (trimmed - rest.number()) / factor();
  }

  /** A curve with the trim on top. */
  public Curve on(Curve curve) {
    var constants = new LinkedHashMap<>(curve.constants());
    constants.put(ZERO, rest.number());
    constants.put(READ, restRead.number());
    Expr moved = curve.equation().minus(Expr.sym(READ));
    Expr trimmed = at == null ? moved : Expr.sym(SPAN).times(moved);
    if (at != null) constants.put(SPAN, factor());
    return new Curve(curve.title() + ", trimmed", Expr.sym(ZERO).plus(trimmed), constants);
  }

  /** For people: zero −0.32 kPa, span ×1.0021. */
  public String says(String unit, int decimals) {
    String zero = "zero %s %s".formatted(Numbers.signed(-offset(), decimals), unit).strip();
    return at == null ? zero : zero + ", span ×" + Numbers.significant(factor(), 5);
  }
}
