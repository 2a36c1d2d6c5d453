package nocking.algebra;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import java.util.Set;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a field reads, the formula of a sensor reads as the same number, and the other way. */
class OneLanguageTest {
  private static double formula(String text) {
    return Formula.parse(text, Set.of("x")).evaluate(Map.of("x", 0.0));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "−1.2E−5",
        "1.2e-5*3",
        "+4",
        "-(+2)^2",
        "abs(−3)",
        "abs(2−5)/2",
        "sqrt(2)*sqrt(2)",
        "ln(2)+log(100)",
        "exp(−1)",
        "sin(1)+cos(1)*tan(1)",
        "asin(0.5)",
        "acos(−0.25)",
        "atan(2)",
        "2*pi",
        "3·4×5",
      })
  void aNumberIsTheSameInBoth(String text) {
    assertThat(formula(text)).isCloseTo(QuantityParser.value(text, Unit.ONE), within(1e-12));
  }

  /** Every function of the one is known to the other. */
  @Test
  void everyFunctionIsKnownInBoth() {
    for (Expr.Function f : Expr.Function.values()) {
      String text = f.word() + "(0.5)";
      assertThat(QuantityParser.value(text, Unit.ONE)).as(text).isEqualTo(f.of(0.5));
    }
    assertThatThrownBy(() -> formula("sinus(1)"))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("known are abs, exp");
    assertThatThrownBy(() -> QuantityParser.value("sinus(1)", Unit.ONE))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("asin, acos, atan");
  }
}
