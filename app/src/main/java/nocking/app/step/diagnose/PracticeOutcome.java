package nocking.app.step.diagnose;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.Paper;
import nocking.channel.PracticeResult;
import nocking.diagnosis.Explanation;
import nocking.diagnosis.MeasuredValue;
import nocking.diagnosis.PracticeCourse;
import nocking.diagnosis.PracticeRound;

/** How practice goes, and afterwards what was hidden and how it could have been found. */
final class PracticeOutcome extends VBox {
  PracticeOutcome() {
    super(5);
    setId("practice-outcome");
  }

  void explainTheGame() {
    getChildren()
        .setAll(
            Paper.caption("1  Hide a fault: the display of a copy of this channel goes wrong."),
            Paper.caption("2  Measure where you like, at any input; every measurement counts."),
            Paper.caption(
                "3  Name it. The explanation and the engine's own plan come here, and the score:"
                    + " its number of measurements over yours."));
  }

  /** What came of an answer. */
  void explain(PracticeRound r, PracticeResult result, PracticeRound.Outcome j, Analysis a) {
    var headline =
        new Label(
            j.right()
                ? "Right: %s. Score %d.".formatted(result.hidden(), result.score())
                : "It was %s.".formatted(result.hidden()));
    headline.setId("practice-verdict");
    headline.setWrapText(true);
    headline.setMinHeight(Region.USE_PREF_SIZE);
    headline.getStyleClass().add(j.right() ? "text-pass" : "text-fail");
    getChildren().setAll(headline);
    getChildren()
        .add(
            Paper.caption(
                "You used %d measurement%s; the engine's own plan needs %d: %s."
                    .formatted(
                        r.exercise().measurements(),
                        r.exercise().measurements() == 1 ? "" : "s",
                        j.plan().size(),
                        j.plan().isEmpty() ? "the display says enough" : plan(j.plan(), a))));
    result.effort().ifPresent(e -> getChildren().add(Paper.caption(effort(e))));
    if (!j.alike().isEmpty()) {
      getChildren()
          .add(
              Paper.caption(
                  "No measurement here tells it from: "
                      + String.join(", ", j.alike().stream().limit(5).toList())
                      + "; any of them counts."));
    }
    var leading = new ArrayList<String>();
    for (Explanation e : j.ranking().leading(4)) {
      leading.add(e.says() + " " + ExplanationList.percent(e.probability()));
    }
    getChildren().add(Paper.caption("After your readings: " + String.join(" · ", leading) + "."));
    getChildren().add(Paper.caption(r.exercise().hidden().kind().family().lesson()));
  }

  /** What came of a course so far. */
  void explain(PracticeCourse course) {
    var line = new Label((course.over() ? "Course done: " : "Course: ") + course.says() + ".");
    line.setId("practice-course-says");
    line.setWrapText(true);
    line.setMinHeight(Region.USE_PREF_SIZE);
    line.getStyleClass().add("result-line");
    line.setMaxWidth(Double.MAX_VALUE);
    getChildren().add(line);
  }

  /** Every probe on live parts is a risk that somebody takes. */
  private static String effort(PracticeResult.Effort e) {
    String live =
        e.needless() == 0
            ? "no probe on live parts that was not needed"
            : "%d probe%s on live parts, %d more than the plan"
                .formatted(e.live(), e.live() == 1 ? "" : "s", e.needless());
    return "It took %s; %s.".formatted(PracticeCourse.time(e.seconds()), live);
  }

  private static String plan(List<MeasuredValue> list, Analysis a) {
    return String.join(
        ", then ",
        list.stream()
            .map(
                o ->
                    "%s at %s (%s)"
                        .formatted(
                            a.channel().wiring().plan().title(o.place()),
                            a.design().amount(o.at()),
                            ReadingsTable.shown(o.place(), o.value(), a)))
            .toList());
  }
}
