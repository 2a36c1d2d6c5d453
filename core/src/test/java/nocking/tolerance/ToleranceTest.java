package nocking.tolerance;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.Surroundings;
import nocking.converter.Converter;
import nocking.quantity.Distribution;
import nocking.quantity.Spread;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.LinearSensor;
import nocking.sensor.NtcBeta;
import nocking.stage.Divider;
import nocking.stage.PullUp;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Error budgets against theory, numerical integration and enumerated corners. */
class ToleranceTest {
  private static final int DRAWS = 200_000;
  private static final double[] AT = {0, 50, 100};

  private static Value within1(double number, double percent) {
    return v(number).withSpread(Spread.percent(percent));
  }

  private static ErrorModel model(Channel c) {
    return Analysis.of(c).design().errorModel().orElseThrow();
  }

  private static List<MonteCarlo.Result> drawn(Channel c, double[] at, long seed) {
    return MonteCarlo.run(model(c), at, DRAWS, seed, p -> {}, () -> false);
  }

  /** No path of the tests has a resolution that shows. */
  private static Channel fine(Channel c) {
    return c.design(d -> d.withConverter(Converter.of(24, 3.3)));
  }

  private static Channel linear(Distribution d) {
    Spread offset = Spread.absolute(0.01).withDistribution(d);
    Spread slope = Spread.absolute(0.0002).withDistribution(d);
    return fine(
        Channels.incubator()
            .define(x -> x.withRange(v(0), v(100)))
            .design(
                design ->
                    design
                        .withSensor(
                            new LinearSensor(
                                v(0.2).withSpread(offset),
                                v(0),
                                v(0.02).withSpread(slope),
                                v(0),
                                v(100),
                                v(0)))
                        .withStages(List.of())));
  }

  /** V = V0 + S·T: the error of the reading is (ΔV0 + ΔS·T)/S, linear in both. */
  @ParameterizedTest
  @EnumSource(Distribution.class)
  void linearPathAgreesWithTheory(Distribution d) {
    List<MonteCarlo.Result> results = drawn(linear(d), AT, 5);
    for (MonteCarlo.Result r : results) {
      double u0 = 0.01 / 0.02 * d.standardPerLimit();
      double u1 = 0.0002 * r.quantity() / 0.02 * d.standardPerLimit();
      double sd = Math.hypot(u0, u1);
      assertThat(r.before().mean()).isCloseTo(0, within(4 * sd / Math.sqrt(DRAWS)));
      assertThat(r.before().sd()).isCloseTo(sd, within(0.01 * sd));
      double first =
          Budget.at(model(linear(d)), new double[] {r.quantity()}).getFirst().before().standard();
      assertThat(first).isCloseTo(sd, within(1e-6 * sd));
      if (d == Distribution.NORMAL) {
        assertThat(r.before().high()).isCloseTo(1.96 * sd, within(0.02 * sd));
        assertThat(r.before().low()).isCloseTo(-1.96 * sd, within(0.02 * sd));
      }
    }
  }

  /** A single rectangular quantity: 95 % of it lie within 0.95 of its limits. */
  @Test
  void coverageIntervalOfOneRectangularValue() {
    var at0 = drawn(linear(Distribution.RECTANGULAR), new double[] {0}, 9).getFirst();
    assertThat(at0.before().high()).isCloseTo(0.95 * 0.5, within(0.002));
  }

  private static Channel ratio() {
    return fine(
        Channels.blower()
            .design(d -> d.withStages(List.of(new Divider(within1(5.1e3, 5), within1(10e3, 5))))));
  }

  /** The ratio R2/(R1 + R2) integrated over both rectangles on a fine grid. */
  @Test
  void ratioPathAgreesWithNumericalIntegration() {
    double x = 60;
    int n = 400;
    double sum = 0;
    double squares = 0;
    double sensor = 0.4 + 4.2 * x / 100;
    for (int i = 0; i < n; i++) {
      for (int j = 0; j < n; j++) {
        double r1 = 5.1e3 * (0.95 + 0.1 * (i + 0.5) / n);
        double r2 = 10e3 * (0.95 + 0.1 * (j + 0.5) / n);
        double read = (sensor * r2 / (r1 + r2) * 15.1 / 10 - 0.4) / 0.042 - x;
        sum += read;
        squares += read * read;
      }
    }
    double mean = sum / n / n;
    double sd = Math.sqrt(squares / n / n - mean * mean);
    Sampled drawn = drawn(ratio(), new double[] {x}, 3).getFirst().before();
    assertThat(drawn.mean()).isCloseTo(mean, within(4 * sd / Math.sqrt(DRAWS)));
    assertThat(drawn.sd()).isCloseTo(sd, within(0.01 * sd));
  }

  @Test
  void worstCaseIsTheWorstCorner() {
    double worst = 0;
    double sensor = 0.4 + 4.2 * 60 / 100;
    for (int a : new int[] {-1, 1}) {
      for (int b : new int[] {-1, 1}) {
        double r1 = 5.1e3 * (1 + 0.05 * a);
        double r2 = 10e3 * (1 + 0.05 * b);
        worst = Math.max(worst, Math.abs((sensor * r2 / (r1 + r2) * 15.1 / 10 - 0.4) / 0.042 - 60));
      }
    }
    ErrorModel m = model(ratio());
    double half = m.halfCount(60);
    BudgetPoint p = Budget.at(m, new double[] {60}).getFirst();
    assertThat(p.before().worstCase()).isCloseTo(worst + half, within(1e-9));
  }

  /** More parameters than corners are enumerated for: the climb finds the same corner. */
  @Test
  void climbFindsTheCornerOfManyParameters() {
    var divider = new Divider(within1(1e3, 1), within1(100e3, 1));
    Channel c =
        fine(
            Channels.blower()
                .design(
                    d ->
                        d.withStages(
                            List.of(
                                divider, divider, divider, divider, divider, divider, divider))));
    ErrorModel m = model(c);
    assertThat(m.uncertain()).hasSize(14);
    double worst = Budget.at(m, new double[] {60}).getFirst().before().worstCase();
    // Every upper resistor down and every lower one up reads highest.
    var high = new Divider(v(0.99e3), v(101e3));
    Channel corner = c.design(d -> d.withStages(List.of(high, high, high, high, high, high, high)));
    double volts = Analysis.of(corner).design().path().orElseThrow().output(60);
    double read = Analysis.of(c).design().path().orElseThrow().quantity(volts) - 60;
    assertThat(worst).isGreaterThanOrEqualTo(read * (1 - 1e-9));
    assertThat(worst).isCloseTo(read, within(0.03 * read));
  }

  @Test
  void calibrationTakesTheStraightPartAway() {
    BudgetPoint linear =
        Budget.at(model(linear(Distribution.NORMAL)), new double[] {50}).getFirst();
    assertThat(linear.after().standard()).isLessThan(1e-4 * linear.before().standard());
    MonteCarlo.Result r = drawn(ratio(), new double[] {30}, 3).getFirst();
    assertThat(r.after().sd()).isLessThan(1e-3 * r.before().sd());
  }

  /** 100 ppm/K on one leg over ±10 K: drift stays after a calibration, tolerance does not. */
  @Test
  void driftStays() {
    var spread = Spread.percent(1).withTemperatureCoefficient(100);
    Channel c =
        fine(
            Channels.blower()
                .design(
                    d ->
                        d.withSurroundings(Surroundings.of(v(10), v(30), null))
                            .withStages(
                                List.of(new Divider(v(5.1e3).withSpread(spread), v(10e3))))));
    ErrorModel m = model(c);
    double sensitivity = new Sensitivities(m).at(60)[0];
    BudgetPoint p = Budget.at(m, new double[] {60}).getFirst();
    double drift = Math.abs(sensitivity) * 5.1e3 * 100e-6 * 10;
    assertThat(p.after().worstCase()).isCloseTo(drift + m.halfCount(60), within(1e-6));
    double u = Math.abs(sensitivity) * 5.1e3 * 100e-6 * 10 / 3;
    assertThat(p.after().standard()).isCloseTo(u, within(1e-3 * u));
    assertThat(drawn(c, new double[] {60}, 2).getFirst().after().sd())
        .isCloseTo(u, within(0.02 * u));
  }

  @Test
  void rankingNamesThePartThatMatters() {
    Channel c =
        fine(
            Channels.incubator()
                .define(d -> d.withRange(v(0), v(40)))
                .design(
                    d ->
                        d.withSensor(
                                new NtcBeta(
                                    within1(10e3, 1),
                                    v(25),
                                    within1(3950, 0.1),
                                    v(-40),
                                    v(125),
                                    null))
                            .withStages(List.of(new PullUp(v(3.3), within1(10e3, 0.1))))));
    Errors e = Budget.at(model(c), new double[] {25}).getFirst().before();
    assertThat(e.ranking().getFirst().name()).isEqualTo("R0");
    assertThat(e.ranking().getFirst().owner().orElseThrow().element()).isZero();
    assertThat(e.ranking().stream().mapToDouble(Share::share).sum()).isCloseTo(1, within(1e-9));
    // 1 % of R at 25 °C is 1 %/(β/T²): 0.225 K.
    assertThat(e.ranking().getFirst().standard() * Math.sqrt(3))
        .isCloseTo(0.01 * 298.15 * 298.15 / 3950, within(1e-3));
  }

  @Test
  void sameSeedGivesTheSameDraws() {
    assertThat(drawn(ratio(), AT.clone(), 4)).isEqualTo(drawn(ratio(), AT.clone(), 4));
    assertThat(drawn(ratio(), AT.clone(), 4)).isNotEqualTo(drawn(ratio(), AT.clone(), 5));
    assertThat(MonteCarlo.run(model(ratio()), AT, DRAWS, 1, p -> {}, () -> true)).isEmpty();
  }

  @Test
  void toleranceIsReadFromTheField() {
    Value v = Value.typed("4k7 ±1% 50ppm", Unit.OHM);
    assertThat(v.number()).isEqualTo(4700);
    assertThat(v.spread().limitOf(4700)).isCloseTo(47, within(1e-9));
    assertThat(v.spread().temperatureCoefficient()).isEqualTo(50);
    assertThat(v.shown(Unit.OHM)).isEqualTo("4k7 ±1% 50ppm");
    assertThat(Value.typed("530 mV +- 2 mV", Unit.VOLT).spread().limitOf(0.53))
        .isCloseTo(0.002, within(1e-15));
    assertThat(Value.typed(v.shown(Unit.OHM), Unit.OHM)).isEqualTo(v);
    assertThat(Value.typed("8 ±0.5", Unit.PERCENT).spread().relative()).isFalse();
  }

  /** A set of parts that no circuit could hold has no reading and is left out. */
  @Test
  void oneDrawOutsideEmptiesNoStatistic() {
    Sampled s = Sampled.of(new double[] {1, Double.NaN, 3, 2});
    assertThat(s.mean()).isEqualTo(2);
    assertThat(s.sd()).isEqualTo(1);
    assertThat(s.low()).isLessThan(s.high());
    assertThat(Sampled.of(new double[] {1, Double.NaN}).sd()).isNaN();
  }
}
