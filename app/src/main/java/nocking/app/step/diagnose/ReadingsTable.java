package nocking.app.step.diagnose;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import nocking.analysis.Analysis;
import nocking.app.control.Paper;
import nocking.diagnosis.Diagnosis;
import nocking.diagnosis.Explanation;
import nocking.diagnosis.Inquiry;
import nocking.diagnosis.MeasuredValue;
import nocking.wiring.Place;

/** What was seen beside what an explanation would have shown. */
final class ReadingsTable extends GridPane {
  ReadingsTable() {
    setHgap(14);
    setVgap(4);
  }

  /** Expected against observed for the explanation that is looked at. */
  void show(Inquiry found, Explanation looked, Analysis a) {
    getChildren().clear();
    if (found == null || looked == null) {
      add(Paper.caption("There is nothing to compare yet."), 0, 0);
      return;
    }
    String[] head = {"where", "at", "seen", "by this explanation"};
    for (int i = 0; i < head.length; i++) {
      var l = new Label(head[i]);
      l.getStyleClass().add("quiet");
      add(l, i, 0);
    }
    List<MeasuredValue> observed = found.ranking().observations();
    for (int i = 0; i < observed.size(); i++) {
      MeasuredValue o = observed.get(i);
      add(new Label(a.channel().wiring().plan().title(o.place())), 0, i + 1);
      add(number(o.inputKnown() ? a.design().amount(o.at()) : "?"), 1, i + 1);
      add(number(shown(o.place(), o.value(), a)), 2, i + 1);
      double e = looked.expected().get(i);
      add(number(o.inputKnown() ? shown(o.place(), e, a) : ""), 3, i + 1);
    }
    add(Paper.caption(looked.fault().line()), 0, observed.size() + 1, 4, 1);
  }

  private static Label number(String text) {
    var l = new Label(text);
    l.getStyleClass().add("mono");
    l.setAlignment(Pos.CENTER_RIGHT);
    return l;
  }

  static String shown(Place place, double value, Analysis a) {
    return place.equals(Place.DISPLAY) && !Double.isNaN(value)
        ? a.design().amount(value)
        : Diagnosis.reading(place, value, a.channel().unit()).replace('-', '−');
  }
}
