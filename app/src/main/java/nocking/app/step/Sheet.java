package nocking.app.step;

import javafx.scene.Node;

/** The view of one stage. It is made once and shown for whatever channel is selected. */
public interface Sheet {
  Node node();

  /** Shows the selected channel as it is now; only called while there is one. */
  void refresh();

  /** The probe has moved. */
  default void probe() {}

  /** Another channel was selected: forget what belongs to the former. */
  default void switched() {}

  /** Opens an element of the path: 0 the sensor, 1 … n the stages, n + 1 the converter. */
  default void element(int index) {}
}
