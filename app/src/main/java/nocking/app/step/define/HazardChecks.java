package nocking.app.step.define;

import java.util.List;
import java.util.Locale;
import java.util.function.BiConsumer;
import javafx.scene.control.CheckBox;
import javafx.scene.layout.FlowPane;
import nocking.channel.Hazard;

/** What can hurt someone here, to be marked. */
final class HazardChecks extends FlowPane {
  /**
   * @param marked called with a hazard and whether it is there
   */
  HazardChecks(BiConsumer<Hazard, Boolean> marked) {
    super(10, 5);
    for (Hazard h : Hazard.values()) {
      var box = new CheckBox(h.title());
      box.setId("hazard-" + h.name().toLowerCase(Locale.ROOT).replace('_', '-'));
      box.setOnAction(e -> marked.accept(h, box.isSelected()));
      getChildren().add(box);
    }
  }

  void show(List<Hazard> there, boolean editable) {
    for (int i = 0; i < Hazard.values().length; i++) {
      var box = (CheckBox) getChildren().get(i);
      box.setSelected(there.contains(Hazard.values()[i]));
      box.setDisable(!editable);
    }
  }
}
