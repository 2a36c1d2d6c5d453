package nocking.view;

import java.util.List;
import java.util.Optional;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.check.Check;
import nocking.check.CheckRow;
import nocking.check.Verdict;
import nocking.fit.Fit;

/** What the check asks for, and what it says. */
public final class AcceptanceView {
  private final Channel channel;
  private final DesignView design;
  private final CalibrationView calibration;
  private final Lazy<List<CheckRow>> rows;

  AcceptanceView(
      Channel channel, DesignView design, CalibrationView calibration, Workings workings) {
    this.channel = channel;
    this.design = design;
    this.calibration = calibration;
    rows = workings.once("the check", this::check, List.of());
  }

  public List<CheckRow> rows() {
    return rows.get();
  }

  private List<CheckRow> check() {
    if (design.path().isEmpty() || calibration.curve().isEmpty()) return List.of();
    Definition d = channel.definition();
    return Check.rows(
        channel.acceptance().check(),
        design.path().get(),
        calibration.curve().get(),
        d.working(),
        d.toleranceOrNaN(),
        channel.wiring().plan().thresholds(),
        channel.acceptance().check().measured().raw().flatMap(calibration::scaleOf));
  }

  public Verdict verdict() {
    return Check.overall(rows());
  }

  /** Rows of which something was measured. */
  public int measured() {
    return (int) rows().stream().filter(r -> !Double.isNaN(r.measured())).count();
  }

  /**
   * Worst error without its sign, in the channel's unit: of the check where something was measured,
   * else of the adopted curve at the points; empty where there are neither.
   */
  public Optional<Double> worstError() {
    return rows().stream()
        .map(r -> Math.abs(r.error()))
        .filter(v -> !Double.isNaN(v))
        .max(Double::compare)
        .or(() -> calibration.adoptedFit().map(Fit::worstError));
  }
}
