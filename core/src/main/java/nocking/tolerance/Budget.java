package nocking.tolerance;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import nocking.path.ParameterRef;

/** Worst case and first-order uncertainty over the range, with the ranking. */
public final class Budget {
  private Budget() {}

  /** The budget at some inputs. */
  public static List<BudgetPoint> at(ErrorModel model, double[] inputs) {
    var sensitivities = new Sensitivities(model);
    double[] low = sensitivities.at(model.working().low());
    double[] high = sensitivities.at(model.working().high());
    var worst = new WorstCase(model);
    var list = new ArrayList<BudgetPoint>();
    for (double x : inputs) {
      double[] s = sensitivities.at(x);
      list.add(
          new BudgetPoint(x, before(model, worst, x, s), after(model, worst, x, s, low, high)));
    }
    return list;
  }

  /** What makes up a budget, before it is ranked. */
  private record Part(String name, Optional<ParameterRef> owner, double standard) {}

  private static Errors before(ErrorModel m, WorstCase worst, double x, double[] s) {
    var parts = new ArrayList<Part>();
    for (int i = 0; i < s.length; i++) {
      Uncertain u = m.uncertain().get(i);
      double fixed = u.limit() * u.distribution().standardPerLimit();
      double drift = drift(m, u);
      parts.add(part(u, Math.abs(s[i]) * Math.hypot(fixed, drift)));
    }
    double klass = m.classLimit().applyAsDouble(x);
    add(parts, "sensor class", klass / Math.sqrt(3));
    add(parts, "converter", m.converterStatic(x) / Math.sqrt(3));
    add(parts, "non-linearity", m.nonLinearity(x) / Math.sqrt(3));
    add(parts, "resolution", m.halfCount(x) / Math.sqrt(3));
    double limit =
        worst.before(x, s) + klass + m.converterStatic(x) + m.nonLinearity(x) + m.halfCount(x);
    return errors(limit, parts);
  }

  private static Errors after(
      ErrorModel m, WorstCase worst, double x, double[] s, double[] low, double[] high) {
    var parts = new ArrayList<Part>();
    double t = m.along(x);
    for (int i = 0; i < s.length; i++) {
      Uncertain u = m.uncertain().get(i);
      double bow = s[i] - (1 - t) * low[i] - t * high[i];
      double fixed = Math.abs(bow) * u.limit() * u.distribution().standardPerLimit();
      parts.add(part(u, Math.hypot(fixed, s[i] * drift(m, u))));
    }
    double klass = m.classBow(x);
    add(parts, "sensor class", klass / Math.sqrt(3));
    add(parts, "non-linearity", m.nonLinearity(x) / Math.sqrt(3));
    add(parts, "resolution", m.halfCount(x) / Math.sqrt(3));
    // Two independent errors of the reference at the ends, shared out along the line.
    double line = Math.hypot(1 - t, t);
    add(parts, "reference", m.referenceStandard() * line);
    double limit =
        worst.after(x, s)
            + klass
            + m.nonLinearity(x)
            + m.halfCount(x)
            + 2 * m.referenceStandard() * line;
    return errors(limit, parts);
  }

  /** Standard deviation of the drift: a coefficient anywhere in its limits at any ambient. */
  static double drift(ErrorModel m, Uncertain u) {
    return u.drift() * Math.sqrt(m.meanSquareDistance() / 3);
  }

  private static Part part(Uncertain u, double standard) {
    return new Part(u.symbol(), Optional.of(u.owner()), standard);
  }

  private static void add(List<Part> parts, String name, double standard) {
    if (standard > 0) parts.add(new Part(name, Optional.empty(), standard));
  }

  private static Errors errors(double worst, List<Part> parts) {
    double variance = parts.stream().mapToDouble(p -> p.standard * p.standard).sum();
    List<Share> ranking =
        parts.stream()
            .filter(p -> p.standard > 0)
            .map(p -> new Share(p.name, p.owner, p.standard, p.standard * p.standard / variance))
            .sorted(Comparator.comparingDouble(Share::share).reversed())
            .toList();
    return new Errors(worst, Math.sqrt(variance), ranking);
  }
}
