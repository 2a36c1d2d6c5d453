package nocking.parts;

import static org.assertj.core.api.Assertions.assertThat;

import nocking.quantity.Span;
import org.junit.jupiter.api.Test;

/** The next size of a part that would do. */
class PartSizeTest {
  @Test
  void aPartLastsAtSixTenthsOfItsRating() {
    assertThat(PartSize.forWatts(0.06).orElseThrow()).isEqualTo(0.1);
    assertThat(PartSize.forWatts(0.0601).orElseThrow()).isEqualTo(0.125);
    assertThat(PartSize.forWatts(0).orElseThrow()).isEqualTo(0.05);
    assertThat(PartSize.forWatts(31)).isEmpty();
    assertThat(PartSize.forVolts(325).orElseThrow()).isEqualTo(750);
    assertThat(PartSize.saysWatts(0.2)).isEqualTo("a part of 400 mW would do");
    assertThat(PartSize.saysWatts(80)).isEqualTo("no usual part takes 80 W");
    assertThat(PartSize.saysVolts(120)).isEqualTo("a part of 200 V would do");
    assertThat(PartSize.saysVolts(1e4)).isEqualTo("no usual part bears 10.0 kV");
  }

  /** 24 V across 1 kΩ to 2 kΩ is a third of a watt at least: an eighth will not do. */
  @Test
  void aDividerThatIsTooHotSaysWhatWouldDo() {
    Assortment e24 = Assortment.of(PreferredSeries.E24);
    var goal = new DividerDesign.Goal(24, 12, new Span(1e3, 2e3), 0.07);
    assertThat(DividerDesign.search(e24, goal, 2).found()).isFalse();
    // Two parts of 1 kΩ each take (12 V)²/1 kΩ = 144 mW.
    assertThat(DividerDesign.instead(e24, goal, 2))
        .isEqualTo("a part of 250 mW would do: 140 mW is needed");
    var free = new DividerDesign.Goal(24, 12, new Span(1e3, 2e3), Double.POSITIVE_INFINITY);
    assertThat(DividerDesign.instead(e24, free, 2)).isEmpty();
    var never = new DividerDesign.Goal(24, 12, new Span(1, 2), 0.07);
    assertThat(DividerDesign.instead(e24, never, 2)).isEmpty();
  }
}
