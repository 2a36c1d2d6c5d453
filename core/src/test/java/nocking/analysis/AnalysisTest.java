package nocking.analysis;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.IntStream;
import nocking.Channels;
import nocking.channel.Adopted;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.check.CheckPoint;
import nocking.check.CheckTable;
import nocking.fit.EndPointLine;
import nocking.fit.Fit;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Value;
import nocking.sensor.LinearSensor;
import nocking.table.TableSpec;
import nocking.view.ProbeState;
import org.junit.jupiter.api.Test;

/** Everything that can be known from a channel, from blank to checked. */
class AnalysisTest {
  private static final Channel BLANK = Channel.blank("b", "NEW");

  private static Channel measured() {
    return Channels.incubator()
        .calibration(
            k ->
                k.withPoints(
                    Channels.points(
                        new double[] {4, 6.5, 9, 11.5, 14}, x -> 1.677 + 0.2694 * (x - 9))));
  }

  @Test
  void blankChannelIsEmptyAndSaysNothingWrong() {
    Analysis a = Analysis.of(BLANK);
    assertThat(a.design().path()).isEmpty();
    assertThat(a.design().problem()).isEmpty();
    assertThat(a.at(5)).isEmpty();
    assertThat(a.calibration().fits()).isEmpty();
    assertThat(a.findings()).isEmpty();
    assertThat(ChannelState.of(a)).isEqualTo(ChannelState.NOT_STARTED);
    assertThat(a.acceptance().worstError()).isEmpty();
    assertThat(a.receiver().table().problem()).isEqualTo("no table is asked for yet");
    for (WorkStep s : WorkStep.values())
      assertThat(Progress.of(a, s)).as(s.title()).isEqualTo(Progress.EMPTY);
  }

  @Test
  void dotsFillAsTheWorkGoesOn() {
    Channel open = measured().define(d -> d.withTolerance(null));
    assertThat(Progress.of(Analysis.of(open), WorkStep.DEFINE)).isEqualTo(Progress.HALF);
    Channel c = open.define(d -> d.withTolerance(v(0.1)));
    Analysis a = Analysis.of(c);
    assertThat(Progress.of(a, WorkStep.DEFINE)).isEqualTo(Progress.FULL);
    assertThat(Progress.of(a, WorkStep.COLLECT)).isEqualTo(Progress.FULL);
    assertThat(Progress.of(a, WorkStep.FIT)).isEqualTo(Progress.HALF);
    assertThat(Progress.of(Analysis.of(a.calibration().adopting("line")), WorkStep.FIT))
        .isEqualTo(Progress.FULL);
    Channel half =
        c.calibration(
            k ->
                k.withPoints(
                    new PointSet(RawUnit.VOLTS, c.calibration().points().points().subList(0, 2))));
    assertThat(Progress.of(Analysis.of(half), WorkStep.COLLECT)).isEqualTo(Progress.HALF);
  }

  @Test
  void readingFollowsTheAdoptedCurve() {
    Channel c = measured();
    ProbeState design = Analysis.of(c).at(9).orElseThrow();
    assertThat(design.error()).as("half a count at most").isCloseTo(0, within(0.0016));
    Analysis adopted = Analysis.of(Analysis.of(c).calibration().adopting("line"));
    ProbeState fitted = adopted.at(9).orElseThrow();
    assertThat(fitted.error()).isCloseTo(-0.027 / 0.2694, within(0.003));
    assertThat(fitted.readOut().output())
        .as("the path is the design")
        .isCloseTo(1.65, within(1e-12));
  }

  @Test
  void adoptedConstantsStayWhenPointsChange() {
    Channel adopted = Analysis.of(measured()).calibration().adopting("line");
    double before = Analysis.of(adopted).calibration().curve().orElseThrow().quantity(1.677);
    Channel moved =
        adopted.calibration(
            k -> k.withPoints(Channels.points(new double[] {4, 9, 14}, x -> 2 + 0.1 * x)));
    assertThat(Analysis.of(moved).calibration().curve().orElseThrow().quantity(1.677))
        .isEqualTo(before);
    assertThat(Analysis.of(moved).calibration().refitted().orElseThrow().curve().quantity(1.677))
        .isNotEqualTo(before);
  }

  @Test
  void countsAreTakenAsTheMiddleOfTheirStep() {
    List<ReferencePoint> counts =
        IntStream.of(409, 2081, 3753)
            .mapToObj(n -> ReferencePoint.of(v(4 + (n - 409) / 334.4), v(n)))
            .toList();
    Analysis a =
        Analysis.of(
            Channels.incubator()
                .calibration(k -> k.withPoints(new PointSet(RawUnit.COUNTS, counts))));
    assertThat(a.calibration().samples().raw()[0]).isCloseTo(409.5 * 3.3 / 4096, within(1e-12));
    Fit line = a.calibration().fit("line").orElseThrow();
    assertThat(line.worstError()).isLessThan(0.01);
  }

  @Test
  void modelsThatThePointsCannotDetermineSayWhy() {
    Channel one =
        Channels.incubator()
            .calibration(k -> k.withPoints(Channels.points(new double[] {9}, x -> 1.65)));
    Analysis a = Analysis.of(one);
    assertThat(a.calibration().fits())
        .extracting(Fit::model)
        .containsExactly("design", "line-zero");
    assertThat(a.calibration().fitProblem(new EndPointLine()))
        .contains("Line through the ends needs at least 2 points; there is 1");
    assertThat(Analysis.of(measured()).calibration().fitProblem(new EndPointLine())).isEmpty();
    assertThat(Analysis.of(BLANK).calibration().adopting("line"))
        .as("nothing to adopt")
        .isEqualTo(BLANK);
    assertThat(Analysis.of(BLANK).calibration().adopting("design").calibration().adopted())
        .isEqualTo(Adopted.DESIGN);
  }

  @Test
  void digitsAreThoseThatACountJustifies() {
    assertThat(Analysis.of(Channels.blower()).design().decimals()).isEqualTo(1);
    assertThat(Analysis.of(Channels.incubator()).design().decimals()).isEqualTo(2);
    assertThat(
            Analysis.of(Channels.blower().define(d -> d.withTolerance(v(0.05))))
                .design()
                .decimals())
        .as("a tolerance is always visible")
        .isEqualTo(2);
  }

  @Test
  void tableCoversTheWorkingRangeInBothAxes() {
    Channel c =
        Analysis.of(measured())
            .calibration()
            .adopting("line")
            .receiver(r -> r.withTable(new TableSpec(6, RawUnit.VOLTS, false, 4, 3)));
    var volts = Analysis.of(c).receiver().table().result().orElseThrow();
    assertThat(volts.cells().getFirst().out()).isCloseTo(4, within(0.002));
    assertThat(volts.cells().getLast().out()).isCloseTo(14, within(0.002));
    assertThat(volts.error().worst()).isLessThan(0.001);
    var counts =
        Analysis.of(c.receiver(r -> r.withTable(c.receiver().table().withAxis(RawUnit.COUNTS))))
            .receiver()
            .table()
            .result()
            .orElseThrow();
    assertThat(counts.cells()).allMatch(k -> k.raw() == Math.rint(k.raw()));
    assertThat(counts.error().worst()).isLessThan(0.001);
    var tooMany =
        Analysis.of(c.receiver(r -> r.withTable(new TableSpec(900, RawUnit.VOLTS, false, 1, 3))))
            .receiver()
            .table();
    assertThat(tooMany.problem()).contains("too few for 900 cells");
  }

  @Test
  void tableOutsideTheConverterIsRefused() {
    var far = new LinearSensor(v(10), v(0), v(0.01), v(0), v(25), v(0));
    Channel c =
        Channels.incubator()
            .design(d -> d.withSensor(far).withStages(List.of()))
            .receiver(r -> r.withTable(TableSpec.DEFAULT));
    assertThat(Analysis.of(c).receiver().table().problem())
        .isEqualTo("the working range lies outside the converter's range");
  }

  @Test
  void stateIsTheGravestThatIsKnown() {
    var good = new CheckPoint(v(9), v(9.01));
    var bad = new CheckPoint(v(9), v(9.2));
    Channel c = Channels.incubator();
    assertThat(ChannelState.of(Analysis.of(c))).isEqualTo(ChannelState.UNDER_WAY);
    assertThat(state(c, good)).isEqualTo(ChannelState.PASS);
    assertThat(state(c, bad)).isEqualTo(ChannelState.FAIL);
    Channel doubtful = c.define(d -> d.withPivot(Value.of(8)));
    assertThat(state(doubtful, good)).isEqualTo(ChannelState.WARNING);
    assertThat(Analysis.of(withCheck(c, good, bad)).acceptance().worstError().orElseThrow())
        .isCloseTo(0.2, within(1e-9));
    assertThat(Analysis.of(measured()).acceptance().worstError().orElseThrow())
        .isCloseTo(0.1, within(0.03));
  }

  private static ChannelState state(Channel c, CheckPoint... points) {
    return ChannelState.of(Analysis.of(withCheck(c, points)));
  }

  private static Channel withCheck(Channel c, CheckPoint... points) {
    return c.acceptance(
        a -> a.withCheck(new CheckTable(CheckTable.Measured.READING, List.of(points))));
  }
}
