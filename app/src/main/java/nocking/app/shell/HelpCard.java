package nocking.app.shell;

import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import nocking.app.desk.Aside;
import nocking.channel.WorkStep;

/** Help on what has the focus, on the stage, and the keys; Escape closes it. */
final class HelpCard extends VBox {
  private static final String KEYS =
      """
      Ctrl+1 … 8   stage                 Ctrl+9   Diagnose
      Ctrl+K       find a channel, command or symbol
      Ctrl+Z       undo                  Shift+Ctrl+Z   redo
      Ctrl+N       new channel           Ctrl+D   duplicate the channel
      Ctrl+L       lock or unlock        Ctrl+S   name a revision
      Ctrl+O       open a book           Ctrl+E   export the channel
      F2, Enter    edit a cell           Tab      next cell
      Ctrl+V       paste a block         Delete   remove a row or a stage
      Arrows       move the probe        Alt+← →  move a stage along the path
      F1           this help             Escape   close, or back to the last good value""";

  private final Label title = new Label();
  private final Label text = new Label();
  private final Label keys = new Label(KEYS);
  private final Button close = new Button("Close");
  private Node returnTo;

  HelpCard() {
    getStyleClass().add("finder");
    setId("help");
    setMaxSize(640, USE_PREF_SIZE);
    title.getStyleClass().add("sheet-title");
    text.setWrapText(true);
    text.setId("help-text");
    keys.getStyleClass().add("mono");
    keys.setStyle("-fx-font-size: 12px;");
    close.setOnAction(e -> close());
    close.setCancelButton(true);
    getChildren().addAll(title, text, keys, close);
    setVisible(false);
    managedProperty().bind(visibleProperty());
  }

  /**
   * @param aside view beside the stages that is shown; empty for a stage
   */
  void open(Node focus, WorkStep step, Optional<Aside> aside) {
    returnTo = focus;
    String place = aside.map(Aside::title).orElse(step.title());
    String about = aside.map(HelpCard::about).orElseGet(() -> about(step));
    String own = focus == null ? null : focus.getAccessibleHelp();
    String name = focus == null ? null : focus.getAccessibleText();
    title.setText(own == null ? place : name == null ? "Help" : name);
    text.setText((own == null ? "" : own + "\n\n") + place + ": " + about);
    setVisible(true);
    close.requestFocus();
  }

  private void close() {
    setVisible(false);
    if (returnTo != null) returnTo.requestFocus();
  }

  private static String about(Aside aside) {
    return switch (aside) {
      case DIAGNOSE ->
          "write down what was seen: where, at which input, what. Every fault of the circuit and the"
              + " usual slips in the numbers are weighed against all of it, with the meter's accuracy"
              + " and what it draws. The dark cue says what to measure next and what each explanation"
              + " would show there.";
      case PRACTICE ->
          "one fault is hidden in a copy of the channel. Measure where you like, then name it. The"
              + " score is the engine's own number of measurements over yours.";
    };
  }

  private static String about(WorkStep step) {
    return switch (step) {
      case DEFINE ->
          "say what is measured, over which range and how well, and enter the sensor from its"
              + " datasheet. Number fields take units, prefixes and arithmetic.";
      case CONDITION ->
          "put the elements on the path with + on the strip, click one to edit it, drag it along"
              + " the trace. The transfer equation is derived from them, loading included.";
      case WIRE ->
          "what every pin must read before and after power, each with its window; enter what the"
              + " meter shows beside it. Below: what every fault would look like, the drawing, the"
              + " steps in their order, and the bands of positions, alarms and switches.";
      case COLLECT ->
          "write down reference points: applied and read. Paste a block from a spreadsheet, or"
              + " import a column file. A point can be left out with a reason. Run: choose the"
              + " instruments and begin; it takes each point when it has settled, Space takes it now."
              + " What was read stays, also when the power goes.";
      case FIT ->
          "candidates side by side. Unseen is the worst error at a point that the fit has not"
              + " used. Enter adopts: the constants stay until you adopt anew. A click on a point in"
              + " the plot leaves it out, with a reason.";
      case TABLE ->
          "the cells that go into the receiver: as few as the tolerance allows, or the best of as"
              + " many as it holds, from the curve or from bench pairs. The handle at the right of"
              + " the plot drags the tolerance. An output that is typed over holds. The list is"
              + " ticked while it is typed in; the transfer is recorded with what was read back.";
      case CHECK ->
          "at each check input what must be there, then what was measured, with the error in the"
              + " quantity, in percent of span and in millivolts.";
      case RECORD ->
          "name a state to be able to go back to it, lock the channel when it is settled, export"
              + " it. Every edit is saved as it is done.";
    };
  }
}
