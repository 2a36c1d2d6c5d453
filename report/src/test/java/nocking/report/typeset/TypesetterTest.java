package nocking.report.typeset;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.algebra.Expr;
import nocking.algebra.Expr.Function;
import org.junit.jupiter.api.Test;

/** A typeset line keeps inside its box, in reading order, and knows its symbols. */
class TypesetterTest {
  private static final Expr A = Expr.sym("Rf");
  private static final Expr B = Expr.sym("Rg");
  private static final Expr X = Expr.sym("x");

  private static void insideItsBox(EquationLayout l) {
    for (Glyphs g : l.glyphs()) {
      assertThat(g.x()).as(g.text()).isBetween(-0.5, l.width());
      assertThat(g.y()).as(g.text()).isBetween(0.0, l.height());
    }
    for (Rule r : l.rules()) {
      assertThat(r.x2()).isLessThanOrEqualTo(l.width() + 0.5);
      assertThat(Math.min(r.y1(), r.y2())).isGreaterThanOrEqualTo(-0.5);
      assertThat(Math.max(r.y1(), r.y2())).isLessThanOrEqualTo(l.height() + 0.5);
    }
  }

  private static List<String> letters(EquationLayout l) {
    return l.glyphs().stream().map(Glyphs::text).toList();
  }

  @Test
  void fractionStandsAboutItsBar() {
    EquationLayout l = Typesetter.expression(A.over(B), 20);
    assertThat(l.rules()).hasSize(1);
    double bar = l.rules().getFirst().y1();
    List<Glyphs> r = l.glyphs().stream().filter(g -> g.text().equals("R")).toList();
    assertThat(r.get(0).y()).isLessThan(bar);
    assertThat(r.get(1).y()).isGreaterThan(bar);
    insideItsBox(l);
  }

  @Test
  void subscriptsAreSmallerAndBelongToTheirSymbol() {
    EquationLayout l = Typesetter.equation(Expr.sym("Vout"), Expr.sym("alpha").times(X), 20);
    assertThat(letters(l)).containsExactly("V", "out", " = ", "α", " · ", "x");
    Glyphs under = l.glyphs().get(1);
    assertThat(under.size()).isLessThan(20);
    assertThat(under.symbol()).isEqualTo("Vout");
    assertThat(under.y()).isGreaterThan(l.glyphs().getFirst().y());
    assertThat(l.glyphs().get(2).symbol()).isEmpty();
    insideItsBox(l);
  }

  @Test
  void bracketsGrowWithWhatTheyHold() {
    EquationLayout low = Typesetter.expression(X.plus(A).times(B), 20);
    EquationLayout high = Typesetter.expression(X.plus(A.over(B)).times(B), 20);
    assertThat(bracket(low).size()).isCloseTo(20, within(2.0));
    assertThat(bracket(high).size()).isGreaterThan(bracket(low).size() + 5);
    insideItsBox(high);
  }

  private static Glyphs bracket(EquationLayout l) {
    return l.glyphs().stream().filter(g -> g.text().equals("(")).findFirst().orElseThrow();
  }

  @Test
  void rootsPowersAndExponentialsKeepInside() {
    insideItsBox(Typesetter.expression(X.plus(A).apply(Function.SQRT), 18));
    insideItsBox(Typesetter.expression(X.apply(Function.EXP).power(Expr.num(2)), 18));
    insideItsBox(
        Typesetter.equation(X, A.over(B.plus(X.over(A).apply(Function.LN))).negated(), 18));
  }

  @Test
  void bracketsStandOnlyWhereTheyAreNeeded() {
    assertThat(letters(Typesetter.expression(A.minus(B.minus(X)), 18))).contains("(");
    assertThat(letters(Typesetter.expression(A.minus(B).minus(X), 18))).doesNotContain("(");
    assertThat(letters(Typesetter.expression(A.plus(B).over(X), 18))).doesNotContain("(");
  }
}
