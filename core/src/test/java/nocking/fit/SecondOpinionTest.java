package nocking.fit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;

/** Points that do not go with the others, planted at random, against those that are named. */
class SecondOpinionTest {
  private static final String[] MODELS = {"line", "poly:2", "poly:3"};

  private record Planted(FitModel model, Samples samples, TreeSet<Integer> wrong) {}

  private static Planted planted(Random r, int wrong) {
    FitModel model = FitModel.of(MODELS[r.nextInt(MODELS.length)]).orElseThrow();
    int degree = model.fewestPoints() - 1;
    int n = 10 + r.nextInt(40);
    double[] c = {r.nextGaussian(), 5 * r.nextGaussian(), 3 * r.nextGaussian(), r.nextGaussian()};
    double noise = 0.01 + 0.05 * r.nextDouble();
    double[] x = new double[n];
    double[] y = new double[n];
    for (int i = 0; i < n; i++) {
      x[i] = 0.3 + 3 * (i + 0.3 * r.nextDouble()) / n;
      for (int k = degree; k >= 0; k--) y[i] = y[i] * x[i] + c[k];
      y[i] += noise * r.nextGaussian();
    }
    var which = new TreeSet<Integer>();
    while (which.size() < Math.min(wrong, n / 5)) which.add(r.nextInt(n));
    for (int i : which) y[i] += (r.nextBoolean() ? 1 : -1) * noise * (25 + 40 * r.nextDouble());
    return new Planted(model, new Samples(x, y), which);
  }

  /** Of 600 sets without a wrong point hardly any has one named. */
  @Test
  void soundPointsAreLeftAlone() {
    var r = new Random(17);
    int named = 0;
    for (int k = 0; k < 600; k++) {
      Planted p = planted(r, 0);
      if (SecondOpinion.of(p.model, p.samples).isPresent()) named++;
    }
    assertThat(named).isLessThanOrEqualTo(6);
  }

  /** Of 600 sets with one to five wrong points these are named, and no others. */
  @Test
  void wrongPointsAreNamed() {
    var r = new Random(18);
    int right = 0;
    int other = 0;
    for (int k = 0; k < 600; k++) {
      Planted p = planted(r, 1 + r.nextInt(5));
      var opinion = SecondOpinion.of(p.model, p.samples);
      if (opinion.isEmpty()) continue;
      if (new TreeSet<>(opinion.get().outliers()).equals(p.wrong)) right++;
      if (!p.wrong.containsAll(opinion.get().outliers())) other++;
      assertThat(opinion.get().times()).isGreaterThan(5);
    }
    // Two wrong ones beside each other could as well be the curve: of those nothing is said.
    assertThat(right).as("of 600").isGreaterThan(420);
    assertThat(other).as("sets in which a sound point was named").isLessThanOrEqualTo(12);
  }

  /** A curve that a polynomial cannot follow is no point's fault: 600 of them, hardly any noise. */
  @Test
  void anotherCurveIsNoOutlier() {
    var r = new Random(19);
    int named = 0;
    for (int k = 0; k < 600; k++) {
      FitModel model = FitModel.of(MODELS[k % MODELS.length]).orElseThrow();
      int n = 10 + r.nextInt(60);
      double noise = 1e-4 * Math.pow(10, 2 * r.nextDouble());
      double bend = 0.5 + 3 * r.nextDouble();
      double[] x = new double[n];
      double[] y = new double[n];
      for (int i = 0; i < n; i++) {
        x[i] = 0.2 + 3 * (i + 0.5 * r.nextDouble()) / n;
        y[i] =
            switch (k / MODELS.length % 5) {
              case 0 -> Math.exp(bend * x[i] / 2);
              case 1 -> Math.log(x[i]) * bend;
              case 2 -> Math.pow(x[i], bend);
              case 3 -> 1 / (0.2 * bend + x[i]);
              default -> Math.sin(bend * x[i]);
            };
        y[i] += noise * r.nextGaussian();
      }
      if (SecondOpinion.of(model, new Samples(x, y)).isPresent()) named++;
    }
    assertThat(named).as("of 600").isLessThanOrEqualTo(12);
  }

  /** Few points, equal ones, exact ones: nothing is said that is not known. */
  @Test
  void nothingIsSaidOfWhatCannotBeTold() {
    FitModel line = FitModel.of("line").orElseThrow();
    double[] four = {1, 2, 3, 4};
    assertThat(SecondOpinion.of(line, new Samples(four, new double[] {1, 2, 9, 4}))).isEmpty();
    double[] same = {2, 2, 2, 2, 2, 2, 2, 2};
    assertThat(SecondOpinion.of(line, new Samples(same, same))).isEmpty();
    double[] x = new double[12];
    double[] y = new double[12];
    for (int i = 0; i < 12; i++) {
      x[i] = i;
      y[i] = 3 * i + 1;
    }
    assertThat(SecondOpinion.of(line, new Samples(x, y))).as("exact").isEmpty();
    y[7] += 1e-3;
    assertThat(SecondOpinion.of(line, new Samples(x, y)).orElseThrow().outliers())
        .containsExactly(7);
    for (int i = 0; i < 6; i++) y[2 * i] += 5;
    assertThat(SecondOpinion.of(line, new Samples(x, y))).as("two halves").isEmpty();
  }
}
