package nocking.parts;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.analysis.PartSearch;
import nocking.channel.Channel;
import nocking.quantity.Span;
import nocking.sensor.CurrentLoop;
import nocking.stage.Shunt;
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

  /** 230 V on a display that takes 5 V behind 100 kΩ: 225 V stand across the extender. */
  @Test
  void anExtenderSaysWhichVoltageWouldDo() {
    Assortment e96 = Assortment.of(PreferredSeries.E96);
    var part = new PartLimit(Double.POSITIVE_INFINITY, 1);
    assertThat(ExtenderDesign.instead(e96, 230, 5, 100e3, part, 1))
        .isEqualTo("a part of 500 V would do: 225 V stand across it");
    assertThat(ExtenderDesign.instead(e96, 230, 5, 100e3, PartLimit.NONE, 1)).isEmpty();
    // 50 µA through 4.5 MΩ are 11 mW, which fit; 10 mW do not.
    assertThat(ExtenderDesign.search(e96, 230, 5, 100e3, PartLimit.ofWatts(0.012), 1).found())
        .isTrue();
    assertThat(ExtenderDesign.instead(e96, 230, 5, 100e3, PartLimit.ofWatts(0.01), 1))
        .startsWith("a part of 50 mW would do: 11 mW");
  }

  /** 20 mA through 150 Ω are 60 mW. */
  @Test
  void aBurdenSaysWhichPowerWouldDo() {
    Channel c =
        Channel.blank("h", "HD-L1")
            .define(d -> d.withUnit("m").withRange(v(0), v(4)))
            .design(
                d ->
                    d.withSensor(new CurrentLoop(v(0), v(4), v(4e-3), v(20e-3)))
                        .withStages(List.of(new Shunt(v(150), null, null, null))));
    Assortment e24 = Assortment.of(PreferredSeries.E24);
    var any = new Span(0, Double.POSITIVE_INFINITY);
    PartSearch.Found free =
        PartSearch.of(c, 0, e24, new PartSearch.Goal(0.6, 3, any, 1, Double.POSITIVE_INFINITY));
    assertThat(free.offers().getFirst().solution().watts()).isCloseTo(0.06, within(1e-9));
    PartSearch.Found none = PartSearch.of(c, 0, e24, new PartSearch.Goal(0.6, 3, any, 1, 0.05));
    assertThat(none.offers()).allMatch(o -> o.solution().watts() <= 0.05);
    PartSearch.Found small = PartSearch.of(c, 0, e24, new PartSearch.Goal(0.6, 3, any, 1, 1e-6));
    assertThat(small.offers()).isEmpty();
    assertThat(small.instead()).isEqualTo("a part of 100 mW would do: 60 mW is needed");
    // Two in series share it.
    PartSearch.Found two = PartSearch.of(c, 0, e24, new PartSearch.Goal(0.6, 3, any, 2, 0.035));
    assertThat(two.offers()).isNotEmpty().allMatch(o -> o.solution().watts() <= 0.035);
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
