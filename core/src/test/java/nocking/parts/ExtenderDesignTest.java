package nocking.parts;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.quantity.QuantityException;
import nocking.sensor.LinearSensor;
import nocking.stage.Divider;
import nocking.stage.SeriesResistor;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A resistor in front of a divider that is already there. */
class ExtenderDesignTest {
  private static final Assortment E24 = Assortment.of(PreferredSeries.E24);

  /**
   * With the computed resistance the higher voltage gives at the output what the lower one gave.
   */
  @ParameterizedTest
  @CsvSource({"12, 5, 10000, 15000", "30, 3.3, 51000, 10000", "5.1, 5, 1000, 1000"})
  void theHigherVoltageTakesThePlaceOfTheLowerOne(
      double highest, double fits, double upper, double lower) {
    double rx = ExtenderDesign.resistance(highest, fits, upper + lower);
    Channel c =
        Channels.incubator()
            .define(d -> d.withRange(v(0), v(highest)).withPivot(null))
            .design(
                d ->
                    d.withSensor(new LinearSensor(v(0), v(0), v(1), v(0), v(highest), v(0)))
                        .withStages(
                            List.of(new SeriesResistor(v(rx)), new Divider(v(upper), v(lower)))));
    double out = Analysis.of(c).design().path().orElseThrow().at(highest).output();
    assertThat(out).isCloseTo(fits * lower / (upper + lower), within(1e-9));
  }

  /** The best single part, found by trying every one. */
  @Test
  void theNearestPartIsFound() {
    double wanted = ExtenderDesign.resistance(12, 5, 25e3);
    double best = Double.POSITIVE_INFINITY;
    for (int i = 0; i < E24.size(); i++) best = Math.min(best, Math.abs(E24.ohms(i) - wanted));
    Candidates found = ExtenderDesign.search(E24, 12, 5, 25e3, PartLimit.NONE, 1);
    Solution first = found.solutions().getFirst();
    assertThat(Math.abs(first.value() - wanted)).isCloseTo(best, within(1e-9));
    double amperes = 5 / 25e3;
    assertThat(first.watts()).isCloseTo(amperes * amperes * first.value(), within(1e-12));
    assertThat(first.note()).startsWith("then ").contains(" V fit, at most ");
  }

  /** 325 V across parts that bear 150 V: at least three in a row, none above its rating. */
  @Test
  void aHighVoltageIsSharedByAString() {
    Candidates found =
        ExtenderDesign.search(E24, 330, 5, 100e3, new PartLimit(Double.POSITIVE_INFINITY, 150), 2);
    assertThat(found.solutions()).isNotEmpty();
    for (Solution s : found.solutions()) {
      Network n = s.parts().getFirst().network();
      assertThat(n.parts()).hasSizeGreaterThanOrEqualTo(3);
      assertThat(325 * n.highestShare()).isLessThanOrEqualTo(150 + 1e-9);
    }
  }

  @Test
  void whatFitsAlreadyNeedsNoExtender() {
    for (double[] odd : new double[][] {{5, 5, 1e3}, {4, 5, 1e3}, {12, 0, 1e3}, {12, 5, 0}}) {
      assertThatThrownBy(() -> ExtenderDesign.resistance(odd[0], odd[1], odd[2]))
          .isInstanceOf(QuantityException.class)
          .hasMessageContaining("an extender needs a voltage above the ");
    }
  }
}
