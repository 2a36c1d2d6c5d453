package nocking.app.control;

import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** A sheet of paper: a title with a quiet note beside it, and contents. */
public final class Paper extends VBox {
  private static final double NARROW = 450;

  private final Label title = new Label();
  private final Label note = new Label();
  private final HBox head = new HBox(10, title, note);

  public Paper(String titleText, Node... contents) {
    getStyleClass().add("sheet");
    title.setText(titleText);
    title.getStyleClass().add("sheet-title");
    title.setMinWidth(Region.USE_PREF_SIZE);
    note.getStyleClass().add("sheet-note");
    head.setAlignment(Pos.CENTER_LEFT);
    head.setMinHeight(22);
    getChildren().add(head);
    getChildren().addAll(contents);
  }

  public void title(String text) {
    title.setText(text);
  }

  public void note(String text) {
    note.setText(text);
  }

  /**
   * Puts controls at the right end of the title line, or on a line of their own where it is narrow.
   */
  public Paper corner(Node... nodes) {
    var gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    note.setMinWidth(0);
    var controls = new FlowPane(8, 6, nodes);
    controls.setMinWidth(0);
    for (Node n : nodes) ((Region) n).setMinWidth(USE_PREF_SIZE);
    var beside = new HBox(10);
    beside.setMinWidth(USE_PREF_SIZE);
    beside.getChildren().addAll(nodes);
    head.getChildren().addAll(gap, beside);
    widthProperty()
        .addListener(
            (o, before, width) -> {
              boolean narrow = width.doubleValue() < NARROW;
              if (narrow == getChildren().contains(controls)) return;
              if (narrow) {
                controls.getChildren().setAll(nodes);
                getChildren().add(1, controls);
              } else {
                getChildren().remove(controls);
                beside.getChildren().setAll(nodes);
              }
            });
    return this;
  }

  /**
   * Puts controls in the place of the title, with the note behind them; what has no room goes to a
   * second line.
   */
  public Paper head(Node first, Node... others) {
    var flow = new FlowPane(8, 6, first);
    flow.setAlignment(Pos.CENTER_LEFT);
    flow.setMinWidth(0);
    ((Region) first).setMinWidth(Region.USE_PREF_SIZE);
    for (Node n : others) ((Region) n).setMinWidth(Region.USE_PREF_SIZE);
    flow.getChildren().addAll(others);
    flow.getChildren().add(note);
    getChildren().set(0, flow);
    return this;
  }

  /** A heading inside a sheet. */
  public static Label subtitle(String text) {
    var l = new Label(text);
    l.getStyleClass().add("subtitle");
    return l;
  }

  /** A quiet explaining line. */
  public static Label caption(String text) {
    var l = new Label(text);
    l.getStyleClass().add("caption");
    l.setWrapText(true);
    l.setMinHeight(USE_PREF_SIZE);
    return l;
  }
}
