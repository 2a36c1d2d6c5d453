package nocking.app.control;

import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;

/** A row of choices of which exactly one is taken. */
public final class Segments<T> extends HBox {
  private final ToggleGroup group = new ToggleGroup();
  private boolean showing;

  public Segments(String id, List<T> choices, Function<T, String> title, Consumer<T> chosen) {
    getStyleClass().add("segments");
    setMaxHeight(USE_PREF_SIZE);
    for (T choice : choices) {
      var button = new ToggleButton(title.apply(choice));
      button.setId(id + "-" + title.apply(choice).toLowerCase(Locale.ROOT).replace(' ', '-'));
      button.setUserData(choice);
      button.setToggleGroup(group);
      button.setMinWidth(USE_PREF_SIZE);
      if (getChildren().isEmpty()) button.getStyleClass().add("first");
      getChildren().add(button);
    }
    group
        .selectedToggleProperty()
        .addListener(
            (o, before, now) -> {
              if (now == null) {
                // A click on the present choice takes nothing away and is no new choice.
                showing = true;
                before.setSelected(true);
                showing = false;
              } else if (!showing) {
                @SuppressWarnings("unchecked")
                T choice = (T) now.getUserData();
                chosen.accept(choice);
              }
            });
  }

  /** Shows some of the choices only. */
  public void offer(List<T> some) {
    for (var node : getChildren()) {
      boolean offered = some.contains(node.getUserData());
      node.setVisible(offered);
      node.setManaged(offered);
    }
  }

  public void show(T choice) {
    showing = true;
    for (var toggle : group.getToggles()) {
      if (toggle.getUserData().equals(choice)) group.selectToggle(toggle);
    }
    showing = false;
  }
}
