package nocking.analysis;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import nocking.Channels;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.check.CheckPoint;
import nocking.check.CheckTable;
import nocking.fit.Fit;
import nocking.fit.FitModel;
import nocking.fit.Trim;
import nocking.table.TableSpec;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Every model that can be adopted serves the whole channel, and comes back from its document. */
class AdoptedModelsTest {
  private static Channel curved() {
    return Channels.incubator()
        .calibration(
            k ->
                k.withPoints(
                    Channels.points(
                        // The job goes a little beyond the points.
                        new double[] {4.3, 5, 6, 7, 8, 9, 10, 11, 12, 13, 13.8},
                        x -> 1.677 + 0.2694 * (x - 9) + 0.004 * (x - 9) * (x - 9))))
        .receiver(r -> r.withTable(TableSpec.DEFAULT))
        .acceptance(
            k ->
                k.withCheck(
                    new CheckTable(
                        CheckTable.Measured.VOLTS,
                        List.of(new CheckPoint(v(5), v(0.7)), new CheckPoint(v(13), v(2.8))))));
  }

  static List<String> models() {
    var list = new ArrayList<String>();
    Analysis a = Analysis.of(curved());
    for (FitModel m : FitModel.all()) {
      if (a.calibration().fit(m.key()).filter(Fit::monotone).isPresent()) list.add(m.key());
    }
    return list;
  }

  @Test
  void nearlyAllModelsFitACurve() {
    assertThat(models()).hasSizeGreaterThan(15).contains("poly:2", "rational:1/1", "exp", "pchip");
  }

  @ParameterizedTest
  @MethodSource("models")
  void anAdoptedModelServes(String model) {
    Channel c = Analysis.of(curved()).calibration().adopting(model);
    Channel again = ChannelJson.readChannel(ChannelJson.write(c), "again.json");
    assertThat(again.calibration().adopted()).isEqualTo(c.calibration().adopted());
    Analysis a = Analysis.of(again);
    var curve = a.calibration().curve().orElseThrow();
    Fit fit = Analysis.of(curved()).calibration().fit(model).orElseThrow();
    for (double volts : new double[] {0.7, 1.2, 1.677, 2.4}) {
      assertThat(curve.quantity(volts)).isEqualTo(fit.curve().quantity(volts));
    }
    // Straight lines need no way back; a step function has none.
    if (!model.equals("nearest")) {
      for (double x : new double[] {4.2, 7.7, 13.6}) {
        assertThat(curve.quantity(curve.raw(x))).as(model).isCloseTo(x, within(1e-7));
      }
      assertThat(a.receiver().table().problem()).isEmpty();
      assertThat(a.receiver().table().result()).isPresent();
    }
    assertThat(a.at(9)).isPresent();
    assertThat(a.acceptance().worstError()).isPresent();
    assertThat(a.findings()).extracting(f -> f.rule()).doesNotContain("stale-adoption");
    assertThat(Progress.of(a, nocking.channel.WorkStep.FIT)).isEqualTo(Progress.FULL);
    assertThat(a.troubles()).as(model).isEmpty();
    // A trim on top of it.
    Trim trim = new Trim(v(4), v(4.3), null, null);
    Analysis trimmed = Analysis.of(again.calibration(k -> k.withTrim(trim)));
    assertThat(trimmed.calibration().curve().orElseThrow().quantity(1.677))
        .isCloseTo(curve.quantity(1.677) - 0.3, within(1e-9));
    trimmed.findings();
    assertThat(trimmed.troubles()).as(model).isEmpty();
  }
}
