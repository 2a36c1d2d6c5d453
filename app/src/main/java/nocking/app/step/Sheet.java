package nocking.app.step;

import javafx.scene.Node;
import nocking.analysis.LiveReading;

/** The view of one stage. It is made once and shown for whatever channel is selected. */
public interface Sheet {
  Node node();

  /** Shows the selected channel as it is now; only called while there is one. */
  void refresh();

  /** The probe has moved. */
  default void probe() {}

  /** Another channel was selected: forget what belongs to the former. */
  default void switched() {}

  /**
   * Takes a live reading into where the work is.
   *
   * @return false where there is no place for it
   */
  default boolean live(LiveReading reading) {
    return false;
  }

  /** There is another live reading. */
  default void live() {}

  /** Opens an element of the path: 0 the sensor, 1 … n the stages, n + 1 the converter. */
  default void element(int index) {}
}
