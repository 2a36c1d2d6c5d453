package nocking.app.step.fit;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import nocking.analysis.Analysis;
import nocking.app.control.PlotView;
import nocking.app.desk.Desk;
import nocking.points.PointSet;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;

/** A point that was picked in the plot: what it is, and out of the fit with a reason, or back. */
final class PointPick extends HBox {
  private static final double NEAR = 8;

  private final Desk desk;
  private final PlotView plot;
  private final Label says = new Label();
  private final TextField reason = new TextField();
  private final Button leave = new Button();
  private List<FitPlots.Shown> shown = List.of();
  private int picked = -1;

  PointPick(Desk desk, PlotView plot) {
    super(8);
    this.desk = desk;
    this.plot = plot;
    setAlignment(Pos.CENTER_LEFT);
    says.setId("picked-point");
    says.setMinWidth(USE_PREF_SIZE);
    reason.setId("picked-reason");
    reason.setPromptText("why it is left out");
    reason.setAccessibleText("Why the point is left out");
    reason.setMinWidth(60);
    reason.setOnAction(e -> leaveOut());
    HBox.setHgrow(reason, Priority.ALWAYS);
    leave.setId("picked-leave-out");
    leave.getStyleClass().add("tiny");
    leave.setMinWidth(USE_PREF_SIZE);
    leave.setOnAction(e -> leaveOut());
    getChildren().addAll(says, reason, leave);
    forget();
  }

  /** What the plot shows now; the point that was picked stays so. */
  void show(Analysis a, List<FitPlots.Shown> points) {
    shown = points;
    Optional<FitPlots.Shown> here = points.stream().filter(p -> p.index() == picked).findFirst();
    boolean on = here.isPresent();
    setVisible(on);
    setManaged(on);
    plot.ring(on ? here.get().x() : Double.NaN, on ? here.get().y() : Double.NaN);
    if (!on) return;
    FitPlots.Shown p = here.get();
    says.setText(
        "Point %d, %s: %s%s"
            .formatted(
                p.index() + 1,
                a.design().amount(p.x()),
                p.y() < 0 ? "−" : "+",
                a.design().error(Math.abs(p.y()))));
    leave.setText(p.leftOut() ? "Count it again" : "Leave out");
    reason.setVisible(!p.leftOut());
    reason.setManaged(!p.leftOut());
    leave.setDisable(!desk.editable());
    reason.setDisable(!desk.editable());
  }

  /** The point at a place of the plot, if there is one. */
  boolean pick(double x, double y, double dx, double dy) {
    Optional<FitPlots.Shown> nearest =
        shown.stream().min(Comparator.comparingDouble(p -> pixels(p, x, y, dx, dy)));
    if (nearest.isEmpty() || pixels(nearest.get(), x, y, dx, dy) > NEAR) {
      if (picked >= 0) forget();
      return false;
    }
    picked = nearest.get().index();
    reason.clear();
    show(desk.analysis(), shown);
    reason.requestFocus();
    return true;
  }

  private static double pixels(FitPlots.Shown p, double x, double y, double dx, double dy) {
    return Math.hypot((p.x() - x) / dx, (p.y() - y) / dy);
  }

  void forget() {
    picked = -1;
    plot.ring(Double.NaN, Double.NaN);
    setVisible(false);
    setManaged(false);
  }

  private void leaveOut() {
    PointSet set = desk.channel().orElseThrow().calibration().points();
    if (picked < 0 || picked >= set.points().size()) return;
    ReferencePoint p = set.points().get(picked);
    boolean back = p.leftOut() != null;
    String why = reason.getText().strip();
    if (!back && why.isEmpty()) {
      desk.say("A point is left out for a reason: type it first.", true);
      reason.requestFocus();
      return;
    }
    int at = picked;
    desk.edit(
        back ? "count point %d again".formatted(at + 1) : "leave point %d out".formatted(at + 1),
        "",
        c -> c.calibration(k -> k.withPoints(set.with(at, p.withLeftOut(back ? null : why)))));
    if (!back) {
      desk.say(
          "Point %d at %s is left out: %s."
              .formatted(at + 1, Numbers.trimmed(p.applied().number(), 6), why),
          false);
    }
  }
}
