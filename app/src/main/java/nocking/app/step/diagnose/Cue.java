package nocking.app.step.diagnose;

import java.util.Optional;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.desk.Desk;
import nocking.diagnosis.Inquiry;
import nocking.diagnosis.NextMeasurement;
import nocking.quantity.Sentence;
import nocking.wiring.Place;

/** What to measure next, in large letters, and what it would show for the likeliest faults. */
final class Cue extends VBox {
  private final Desk desk;
  private final ObservationEntry entry;

  Cue(Desk desk, ObservationEntry entry) {
    super(5);
    this.desk = desk;
    this.entry = entry;
    setId("diagnose-next");
    getStyleClass().add("cue");
  }

  /**
   * @param found what was found; null where there is nothing to look at
   */
  void show(Inquiry found) {
    getChildren().clear();
    Optional<NextMeasurement> next = found == null ? Optional.empty() : found.next();
    if (next.isEmpty()) {
      var none =
          new Label(
              found == null || found.ranking().observations().isEmpty()
                  ? "Enter the complaint first."
                  : "Nothing that can be measured here says more.");
      none.setWrapText(true);
      none.getStyleClass().add("cue-text");
      getChildren().add(none);
      return;
    }
    NextMeasurement n = next.get();
    Analysis a = desk.analysis();
    boolean display = n.place().equals(Place.DISPLAY);
    var headline =
        new Label(
            display
                ? "Read the display"
                : "Measure the " + a.channel().wiring().plan().title(n.place()));
    headline.getStyleClass().add("cue-title");
    headline.setWrapText(true);
    headline.setMinHeight(Region.USE_PREF_SIZE);
    String how =
        n.place().live()
            ? "live, with " + a.design().amount(n.at()) + " at the sensor."
            : display
                ? "with " + a.design().amount(n.at()) + " at the sensor."
                : "with the plug off, at " + a.design().amount(n.at()) + ".";
    var text = new Label(how + " It tells them apart best:");
    text.setWrapText(true);
    text.setMinHeight(Region.USE_PREF_SIZE);
    text.getStyleClass().add("cue-text");
    getChildren().addAll(headline, text);
    n.predictions().stream().limit(3).forEach(p -> getChildren().add(cueLine(n, p, a)));
    var enter = new Button("Enter it");
    enter.setId("diagnose-enter");
    enter.getStyleClass().add("cue-button");
    enter.setDisable(!desk.writable());
    enter.setOnAction(e -> entry.ready(n.place(), a.design().reading(n.at())));
    getChildren().add(enter);
  }

  private static HBox cueLine(NextMeasurement n, NextMeasurement.Prediction p, Analysis a) {
    String fault = p.fault().name();
    var name = new Label(Sentence.capital(fault));
    name.getStyleClass().add("cue-text");
    name.setMaxWidth(Double.MAX_VALUE);
    name.setMinWidth(0);
    HBox.setHgrow(name, Priority.ALWAYS);
    var value = new Label(ReadingsTable.shown(n.place(), p.value(), a));
    value.getStyleClass().add("cue-value");
    value.setMinWidth(Region.USE_PREF_SIZE);
    var line = new HBox(8, name, value);
    line.getStyleClass().add("cue-line");
    return line;
  }
}
