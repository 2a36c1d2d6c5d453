package nocking.app.step.fit;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import nocking.analysis.Analysis;
import nocking.fit.Fit;
import nocking.quantity.Numbers;
import nocking.report.plot.Plot;

/**
 * What is seen of a fit, made away from the interface thread.
 *
 * @param points where they can be picked
 * @param otherWay what is said of the fit of raw on the quantity; empty for nothing
 */
record FitPicture(Plot main, Plot design, List<FitPlots.Shown> points, String otherWay) {
  static FitPicture of(Analysis a, FitPlots plots, Fit fit, FitLook look) {
    Optional<Fit> other =
        look == FitLook.OTHER_WAY ? a.calibration().otherWay(fit.model()) : Optional.empty();
    Plot main =
        look == FitLook.CURVE
            ? plots.curve()
            : other.map(plots::otherWay).orElseGet(plots::residuals);
    return new FitPicture(
        main,
        plots.againstDesign(),
        plots.errors(fit),
        look == FitLook.OTHER_WAY ? otherWay(a, other) : "");
  }

  private static String otherWay(Analysis a, Optional<Fit> other) {
    if (other.isEmpty()) return "This model cannot be fitted the other way.";
    Fit f = other.get();
    String constants =
        f.inRaw().stream()
            .map(c -> "%s %s".formatted(c.name(), Numbers.significant(c.value(), 7)))
            .collect(Collectors.joining(", "));
    return ("Raw from the quantity, as if all the scatter were in the raw value: worst %s, RMS %s;"
            + " %s, for volts from %s. The channel goes by the quantity from raw.")
        .formatted(
            Numbers.engineering(f.worstError(), "V", 3),
            Numbers.engineering(f.rms(), "V", 3),
            constants,
            a.channel().definition().unit().isEmpty() ? "x" : a.channel().definition().unit());
  }
}
