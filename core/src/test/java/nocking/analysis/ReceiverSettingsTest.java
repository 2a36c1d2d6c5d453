package nocking.analysis;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.Channels;
import nocking.analysis.ReceiverSettings.Setting;
import nocking.band.AlarmBand;
import nocking.band.BandPosition;
import nocking.channel.Channel;
import nocking.points.RawUnit;
import nocking.sensor.TwoPointSensor;
import nocking.table.TableSpec;
import nocking.wiring.Thresholds;
import org.junit.jupiter.api.Test;

/**
 * What is typed in reads, with the receiver's own arithmetic, what the sheet says that it costs.
 */
class ReceiverSettingsTest {

  private static List<Setting> group(Channel c, String group) {
    return ReceiverSettings.of(Analysis.of(c)).stream()
        .filter(s -> s.group().equals(group))
        .toList();
  }

  /** 35.952 kPa/V and −9.5238 kPa, each to a tenth of the 0.029 kPa of one count. */
  @Test
  void aStraightLineIsTypedInWithTheFewestDecimalsThatCostNothing() {
    Channel c = Channels.blower();
    var path = Analysis.of(c).design().path().orElseThrow();
    List<Setting> line = group(c, "Straight line");
    assertThat(line).extracting(Setting::name).containsExactly("slope", "intercept");
    double slope = Double.parseDouble(line.get(0).value());
    double intercept = Double.parseDouble(line.get(1).value());
    assertThat(line.get(0).value()).isEqualTo("35.952");
    double count = path.countsWorth(30);
    for (double volts = 0; volts <= 3.3; volts += 0.1) {
      assertThat(slope * volts + intercept)
          .isCloseTo(path.quantity(volts), within(0.2 * Math.abs(count)));
    }
  }

  @Test
  void everyCellOfTheTableStandsOnTheSheetWithItsCost() {
    Channel c =
        Channels.blower().receiver(r -> r.withTable(new TableSpec(9, RawUnit.COUNTS, false, 0, 1)));
    List<Setting> cells = group(c, "Table");
    assertThat(cells).hasSize(9);
    assertThat(cells.getFirst().name()).startsWith("cell 1 at ").endsWith(" counts");
    // One decimal of a kilopascal costs at most half of it.
    for (Setting s : cells) {
      assertThat(Double.parseDouble(s.cost().split(" ")[0])).isLessThanOrEqualTo(0.05);
    }
  }

  @Test
  void limitsAndPositionsAreTypedInAsCodes() {
    Channel c =
        Channels.blower()
            .wiring(
                w ->
                    w.withPlan(w.plan().withThresholds(new Thresholds(v(0.1), v(2.6))))
                        .withBands(
                            w.bands()
                                .withPositions(
                                    List.of(
                                        new BandPosition(
                                            "open", v(0.5), v(0.2), List.of(), List.of())))
                                .withAlarms(List.of(new AlarmBand("high", v(50), null)))));
    int codes = c.design().converter().codes();
    double top = c.design().converter().reference().number();
    assertThat(group(c, "Fault limits"))
        .extracting(Setting::value)
        .containsExactly(code(0.1, top, codes), code(2.6, top, codes));
    assertThat(group(c, "Positions"))
        .extracting(Setting::value)
        .containsExactly(code(0.3, top, codes), code(0.7, top, codes));
    assertThat(group(c, "Alarms")).extracting(Setting::name).containsExactly("high from");
  }

  private static String code(double volts, double top, int codes) {
    return String.valueOf((int) Math.floor(volts / top * codes));
  }

  @Test
  void withoutAPathThereIsNothingToTypeIn() {
    assertThat(ReceiverSettings.of(Analysis.of(Channel.blank("1", "NEW")))).isEmpty();
  }

  /** A line through nothing has an intercept of 0 and not of −0. */
  @Test
  void nothingHasNoSign() {
    Channel c =
        Channels.blower()
            .design(d -> d.withSensor(new TwoPointSensor(v(0), v(0), v(100), v(5), v(0))));
    assertThat(group(c, "Straight line").get(1).value()).isEqualTo("0");
  }
}
