package nocking.check;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.check.CheckTable.Measured;
import nocking.fit.Curve;
import nocking.path.PathState;
import nocking.path.SignalPath;
import nocking.points.RawScale;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.wiring.Thresholds;

/** Works out the lines of a check sheet. */
public final class Check {
  private Check() {}

  /**
   * @param adopted curve from volts to quantity that the receiver uses
   * @param tolerance in the channel's unit; NaN when none is stated
   * @param limits volts beyond which a reading is a fault and fails; null for none
   * @param scale what the measured values stand for at the converter; empty where that is not
   *     known, and for what the display shows
   */
  public static List<CheckRow> rows(
      CheckTable sheet,
      SignalPath path,
      Curve adopted,
      Span working,
      double tolerance,
      Thresholds limits,
      Optional<RawScale> scale) {
    return sheet.points().stream()
        .map(
            p ->
                row(
                    p.applied().number(),
                    p.measured(),
                    sheet.measured(),
                    path,
                    adopted,
                    working,
                    tolerance,
                    limits,
                    scale))
        .toList();
  }

  private static CheckRow row(
      double applied,
      Value entered,
      Measured as,
      SignalPath path,
      Curve adopted,
      Span working,
      double tolerance,
      Thresholds limits,
      Optional<RawScale> scale) {
    PathState read = path.at(applied);
    var nodes = new ArrayList<Double>();
    for (PathState.Node node : read.nodes()) nodes.add(node.value());
    // A healthy calibrated channel gives what its own curve turns back into the applied value.
    double expectedVolts = adopted.raw(applied);
    if (!read.clipped()) nodes.set(nodes.size() - 1, expectedVolts);
    int code = path.converter().code(nodes.getLast());
    double expectedReading = adopted.quantity(path.converter().volts(code));
    double measured = entered == null ? Double.NaN : entered.number();
    double volts =
        as == Measured.READING
            ? adopted.raw(measured)
            : scale.map(s -> s.volts(measured)).orElse(Double.NaN);
    double reading = as == Measured.READING ? measured : adopted.quantity(volts);
    double error = reading - applied;
    boolean fault = limits != null && !Double.isNaN(volts) && limits.fault(volts);
    return new CheckRow(
        applied,
        List.copyOf(nodes),
        code,
        expectedReading,
        measured,
        reading,
        error,
        100 * error / working.width(),
        as.ofSensor() ? Double.NaN : 1000 * (volts - nodes.getLast()),
        fault,
        fault ? Verdict.FAIL : Verdict.of(error, tolerance));
  }

  /** FAIL if any line fails, OPEN if any is open, else PASS; OPEN for an empty sheet. */
  public static Verdict overall(List<CheckRow> rows) {
    if (rows.stream().anyMatch(r -> r.verdict() == Verdict.FAIL)) return Verdict.FAIL;
    boolean open = rows.isEmpty() || rows.stream().anyMatch(r -> r.verdict() == Verdict.OPEN);
    return open ? Verdict.OPEN : Verdict.PASS;
  }
}
