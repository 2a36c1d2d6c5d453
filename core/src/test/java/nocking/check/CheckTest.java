package nocking.check;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.check.CheckTable.Measured;
import nocking.fault.PinExpectation;
import org.junit.jupiter.api.Test;

/** What must be there, what was measured, and the verdict; what every pin must read. */
class CheckTest {

  private static CheckRow row(Channel c, Measured as, double applied, Double measured) {
    var point = new CheckPoint(v(applied), measured == null ? null : v(measured));
    return Analysis.of(c.acceptance(a -> a.withCheck(new CheckTable(as, List.of(point)))))
        .acceptance()
        .rows()
        .getFirst();
  }

  /** A line is changed, added and taken out; the others stay as they are. */
  @Test
  void linesOfTheSheetAreChangedOneByOne() {
    CheckTable sheet =
        new CheckTable(
            Measured.VOLTS, List.of(new CheckPoint(v(4), v(0.3)), new CheckPoint(v(9), null)));
    CheckPoint third = new CheckPoint(v(14), v(3));
    assertThat(sheet.plus(third).points()).startsWith(sheet.points().toArray(CheckPoint[]::new));
    assertThat(sheet.plus(third).without(1).points())
        .containsExactly(sheet.points().getFirst(), third);
    assertThat(sheet.with(1, third).points()).containsExactly(sheet.points().getFirst(), third);
    assertThat(sheet.points()).hasSize(2);
    assertThat(Check.overall(List.of())).isEqualTo(Verdict.OPEN);
  }

  @Test
  void expectedValuesFollowFromTheDesign() {
    CheckRow r = row(Channels.incubator(), Measured.VOLTS, 9, null);
    assertThat(r.expectedNodes().get(0)).isCloseTo(0.53, within(1e-12));
    assertThat(r.expectedNodes().get(1)).isCloseTo(1.65, within(1e-12));
    assertThat(r.expectedCode()).isEqualTo(2048);
    assertThat(r.expectedReading()).isCloseTo(9, within(0.003));
    assertThat(r.verdict()).isEqualTo(Verdict.OPEN);
  }

  @Test
  void adoptedCurveMovesWhatIsExpected() {
    Channel c =
        Channels.incubator()
            .calibration(
                k ->
                    k.withPoints(
                        Channels.points(new double[] {4, 9, 14}, x -> 1.677 + 0.27 * (x - 9))));
    CheckRow r = row(Analysis.of(c).calibration().adopting("line"), Measured.VOLTS, 9, 1.677);
    assertThat(r.expectedNodes().getLast()).isCloseTo(1.677, within(1e-9));
    assertThat(r.error()).isCloseTo(0, within(1e-9));
    assertThat(r.millivolts()).isCloseTo(0, within(1e-6));
  }

  @Test
  void errorIsGivenThreeWays() {
    CheckRow r = row(Channels.incubator(), Measured.VOLTS, 9, 1.65 + 0.0135);
    assertThat(r.error()).isCloseTo(0.05, within(1e-9));
    assertThat(r.percentOfSpan()).isCloseTo(0.5, within(1e-9));
    assertThat(r.millivolts()).isCloseTo(13.5, within(1e-9));
    assertThat(r.verdict()).isEqualTo(Verdict.PASS);
    assertThat(row(Channels.incubator(), Measured.READING, 9, 9.2).millivolts())
        .isCloseTo(54, within(1e-9));
    assertThat(row(Channels.incubator(), Measured.COUNTS, 9, 2100.0).error())
        .isCloseTo((2100.5 / 4096 * 3.3 - 1.65) / 0.27, within(1e-9));
  }

  @Test
  void errorOfExactlyTheTolerancePasses() {
    assertThat(row(Channels.incubator(), Measured.READING, 9, 9.1).verdict())
        .isEqualTo(Verdict.PASS);
    assertThat(row(Channels.incubator(), Measured.READING, 9, 9.10001).verdict())
        .isEqualTo(Verdict.FAIL);
  }

  @Test
  void oneFailingLineFailsTheCheck() {
    var good = new CheckPoint(v(9), v(9));
    var bad = new CheckPoint(v(9), v(10));
    var open = new CheckPoint(v(9), null);
    assertThat(overall(good, good)).isEqualTo(Verdict.PASS);
    assertThat(overall(good, open)).isEqualTo(Verdict.OPEN);
    assertThat(overall(good, open, bad)).isEqualTo(Verdict.FAIL);
    assertThat(overall()).isEqualTo(Verdict.OPEN);
  }

  private static Verdict overall(CheckPoint... points) {
    return Analysis.of(
            Channels.incubator()
                .acceptance(a -> a.withCheck(new CheckTable(Measured.READING, List.of(points)))))
        .acceptance()
        .verdict();
  }

  @Test
  void pinsReadWhatThePathSays() {
    Channel c = Channels.blower().define(d -> d.withRest(v(30)));
    List<PinExpectation> pins = Analysis.of(c).wiring().pins();
    assertThat(pins)
        .extracting(PinExpectation::name)
        .containsExactly("supply", "ground", "signal", "TP2");
    assertThat(pins.get(0).atRest()).isEqualTo(5);
    assertThat(pins.get(2).atRest()).isCloseTo(1.66, within(1e-9));
    assertThat(pins.get(3).atHigh()).isCloseTo(1.93377, within(5e-6));
    assertThat(Analysis.of(Channels.incubator()).wiring().pins().get(0).atRest()).isNaN();
  }
}
