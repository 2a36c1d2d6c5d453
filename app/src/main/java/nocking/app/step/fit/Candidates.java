package nocking.app.step.fit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import nocking.analysis.Analysis;
import nocking.fit.Fit;
import nocking.fit.FitModel;
import nocking.fit.Recommendation;
import nocking.fit.SecondOpinion;
import nocking.quantity.Numbers;

/** All candidates of an analysis, and what is said of them. */
record Candidates(
    List<Fit> fits, Optional<Recommendation> best, String problems, boolean stale, String second) {
  /** How many models say why they are missing. */
  private static final int REASONS = 2;

  static Candidates of(Analysis a) {
    List<Fit> fits = a.calibration().fits();
    boolean stale = a.findings().stream().anyMatch(x -> x.rule().equals("stale-adoption"));
    return new Candidates(
        fits,
        a.calibration().recommendation(),
        fits.isEmpty() ? "" : problems(a),
        stale,
        a.calibration().secondOpinion().map(o -> says(a, o)).orElse(""));
  }

  /** Which points do not go with the others, and what would be left without them. */
  private static String says(Analysis a, SecondOpinion o) {
    double[] x = a.calibration().samples().quantity();
    String which =
        o.outliers().stream()
            .limit(3)
            .map(i -> a.design().amount(x[i]))
            .collect(Collectors.joining(", "));
    int more = o.outliers().size() - 3;
    return "A second opinion: the point%s at %s%s %s %s times as far off as the others scatter. Without %s a %s leaves %s."
        .formatted(
            o.outliers().size() == 1 ? "" : "s",
            which,
            more > 0 ? " and %d more".formatted(more) : "",
            o.outliers().size() == 1 ? "is" : "are up to",
            Numbers.significant(o.times(), 2),
            o.outliers().size() == 1 ? "it" : "them",
            o.without().curve().title().toLowerCase(Locale.ROOT),
            a.design().error(o.without().worstError()));
  }

  /** Why some are missing: those that want more points together, the others by their own words. */
  private static String problems(Analysis a) {
    int points = a.calibration().samples().size();
    int more = 0;
    var why = new ArrayList<String>();
    for (FitModel m : FitModel.all()) {
      if (a.calibration().fit(m.key()).isPresent()) continue;
      if (m.fewestPoints() > points) more++;
      else a.calibration().fitProblem(m).ifPresent(p -> why.add(p + "."));
    }
    // What stands in the way of one mostly stands in that of the others.
    while (why.size() > REASONS) why.removeLast();
    if (more > 0) {
      why.addFirst(
          "%d point%s too few for %d more models."
              .formatted(points, points == 1 ? " is" : "s are", more));
    }
    return String.join(" ", why);
  }
}
