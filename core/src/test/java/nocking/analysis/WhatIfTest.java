package nocking.analysis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import nocking.Channels;
import nocking.channel.Channel;
import nocking.path.ParameterRef;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import org.junit.jupiter.api.Test;

class WhatIfTest {
  private static final Analysis BLOWER = Analysis.of(Channels.blower());

  private static ParameterRef constant(String symbol) {
    return BLOWER.design().path().orElseThrow().owners().get(symbol);
  }

  /**
   * 0.4 … 4.6 V over 100 kPa through 5.1 kΩ over 10 kΩ, of which the 10 kΩ is fitted as 12 kΩ, by
   * hand: 30 kPa is 1.660 V at the sensor and 1.660·12/17.1 V behind the divider; the present
   * equation takes that times 15.1/10 for the sensor's.
   */
  @Test
  void boardWithAnotherPartIsReadByThePresentEquation() {
    WhatIf w = WhatIf.of(BLOWER, constant("R2"), Value.typed("12k", Unit.OHM)).orElseThrow();
    WhatIf.Row middle = w.rows().get(1);
    assertThat(middle.applied()).isEqualTo(30);
    assertThat(middle.now()).isCloseTo(1.660 * 10 / 15.1, within(1e-12));
    assertThat(middle.then()).isCloseTo(1.660 * 12 / 17.1, within(1e-12));
    double read = (1.660 * 12 / 17.1 * 1.51 - 0.4) / 4.2 * 100;
    assertThat(middle.reading()).isCloseTo(read, within(1e-9));
    assertThat(middle.off()).isCloseTo(read - 30, within(1e-9));
    assertThat(w.shift().orElseThrow().slope())
        .isCloseTo((10 / 15.1) / (12 / 17.1) - 1, within(1e-12));
    // The pivot is where the converter stands at half of its 3.3 V.
    assertThat(w.shift().orElseThrow().by())
        .isCloseTo(1.65 * (17.1 / 12 - 15.1 / 10) / 4.2 * 100, within(1e-9));
  }

  @Test
  void nothingMovesWhereTheValueIsThePresentOne() {
    WhatIf w = WhatIf.of(BLOWER, constant("R2"), Value.typed("10k", Unit.OHM)).orElseThrow();
    assertThat(w.rows()).allSatisfy(r -> assertThat(r.off()).isCloseTo(0, within(1e-9)));
    assertThat(w.then().numbers(6)).isEqualTo(w.now().numbers(6));
  }

  /** The channel itself is not touched by the question, and only one constant by the answer. */
  @Test
  void oneConstantOfOneElementIsChanged() {
    ParameterRef r2 = constant("R2");
    Value v = Value.typed("12k", Unit.OHM);
    Channel changed = BLOWER.channel().design(d -> d.withParameter(r2.element(), r2.field(), v));
    assertThat(changed.design().element(r2.element()).value(r2.field())).isEqualTo(v);
    assertThat(changed.design().sensor()).isEqualTo(BLOWER.channel().design().sensor());
    assertThat(changed.design().converter()).isEqualTo(BLOWER.channel().design().converter());
    Value present = BLOWER.channel().design().element(r2.element()).value(r2.field());
    assertThat(changed.design(d -> d.withParameter(r2.element(), r2.field(), present)))
        .isEqualTo(BLOWER.channel());
  }

  @Test
  void valueThatCannotBeIsRefused() {
    assertThatThrownBy(() -> constant("R2").field().read("-5k", BLOWER.channel().unit()))
        .isInstanceOf(QuantityException.class);
    Value none = Value.typed("0", Unit.OHM);
    assertThat(WhatIf.of(BLOWER, constant("R2"), none)).isEmpty();
  }
}
