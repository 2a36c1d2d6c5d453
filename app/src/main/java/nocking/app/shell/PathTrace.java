package nocking.app.shell;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.IntConsumer;
import javafx.geometry.Pos;
import javafx.geometry.Side;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import nocking.analysis.Analysis;
import nocking.app.desk.Desk;
import nocking.channel.Channel;
import nocking.channel.StoredCurve;
import nocking.fit.Curve;
import nocking.stage.Stage;

/** The copper trace of a path: its pads, and the elements that ride on it and can be dragged. */
final class PathTrace extends Pane {
  static final double HEIGHT = 100;

  private static final double LINE = 38;
  private static final double FEWEST_PITCH = 172;

  private final Desk desk;
  private final IntConsumer open;
  private final Line copper = new Line();
  private final Rectangle drop = new Rectangle(4, 30);
  private final List<Pad> pads = new ArrayList<>();
  private final List<VBox> cards = new ArrayList<>();
  private final List<Button> inserts = new ArrayList<>();
  private List<Object> shape = List.of();
  private int dragged = -1;
  private double pressedAt;

  /**
   * @param open called with the element that was clicked
   */
  PathTrace(Desk desk, IntConsumer open) {
    this.desk = desk;
    this.open = open;
    copper.getStyleClass().add("trace");
    drop.getStyleClass().add("drop-mark");
    drop.setVisible(false);
    setMinHeight(HEIGHT);
    setPrefHeight(HEIGHT);
    widthProperty().addListener(o -> place());
  }

  private Channel channel() {
    return desk.channel().orElseThrow();
  }

  /** The quantity, the test points, the code and the reading. */
  List<Pad> pads() {
    return pads;
  }

  /** Shows a channel: rebuilt only when its elements are others. */
  void show(Channel c, Analysis a) {
    List<Object> now = new ArrayList<>();
    now.add(c.id());
    now.add(c.design().sensor() == null ? "" : c.design().sensor().model());
    c.design().stages().forEach(s -> now.add(s.title()));
    now.add(desk.editable());
    if (!now.equals(shape)) {
      shape = now;
      rebuild(c);
    }
    fillCards(c, a);
  }

  private void rebuild(Channel c) {
    pads.clear();
    cards.clear();
    inserts.clear();
    int n = c.design().stages().size();
    pads.add(new Pad("quantity"));
    for (int i = 0; i <= n; i++) pads.add(new Pad("TP" + (i + 1)));
    pads.add(new Pad("raw"));
    pads.add(new Pad("reading"));
    for (int i = 0; i <= n + 2; i++) cards.add(card(i, n));
    if (desk.editable() && c.design().sensor() != null) {
      for (int i = 0; i <= n; i++) inserts.add(insert(i));
    }
    for (var list : List.of(pads, cards, inserts)) list.forEach(node -> node.setManaged(false));
    // A long path keeps its readable pitch and scrolls.
    setMinWidth(Pad.WIDTH + (pads.size() - 1) * FEWEST_PITCH);
    getChildren().setAll(copper);
    getChildren().addAll(pads);
    getChildren().addAll(cards);
    getChildren().addAll(inserts);
    getChildren().add(drop);
    place();
  }

  private VBox card(int index, int stages) {
    var name = new Label();
    name.getStyleClass().add("title");
    var summary = new Label();
    summary.getStyleClass().add("summary");
    var box = new VBox(name, summary);
    box.setId("element-" + index);
    box.getStyleClass().add("element");
    box.setAlignment(Pos.CENTER);
    box.setFocusTraversable(true);
    box.setOnKeyPressed(
        e -> {
          boolean stage = index >= 1 && index <= stages;
          if (e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE) open.accept(index);
          else if (e.getCode() == KeyCode.DELETE && stage) remove(index - 1);
          else if (e.isAltDown() && e.getCode() == KeyCode.LEFT && stage)
            move(index - 1, index - 2);
          else if (e.isAltDown() && e.getCode() == KeyCode.RIGHT && stage) move(index - 1, index);
          else return;
          e.consume();
        });
    boolean stage = index >= 1 && index <= stages;
    box.setOnMousePressed(e -> pressedAt = sceneToLocal(e.getSceneX(), 0).getX());
    if (stage) {
      box.setOnMouseDragged(e -> drag(e, index - 1));
      box.setAccessibleHelp(
          "Enter opens the element, Delete takes it out, Alt with left or right moves it.");
    }
    box.setOnMouseReleased(
        e -> {
          if (dragged >= 0) drop(e);
          else open.accept(index);
        });
    return box;
  }

  private void drag(MouseEvent e, int stage) {
    double x = sceneToLocal(e.getSceneX(), 0).getX();
    if (dragged < 0 && Math.abs(x - pressedAt) < 8) return;
    if (!desk.editable()) return;
    dragged = stage;
    int target = targetAt(x);
    drop.setVisible(true);
    drop.setX(padCentre(target + 1) - 2);
    drop.setY(LINE - 15);
  }

  /** Place among the stages that a horizontal position stands for. */
  private int targetAt(double x) {
    int n = channel().design().stages().size();
    int best = 0;
    for (int i = 0; i <= n; i++) {
      if (Math.abs(padCentre(i + 1) - x) < Math.abs(padCentre(best + 1) - x)) best = i;
    }
    return best;
  }

  private void drop(MouseEvent e) {
    int target = targetAt(sceneToLocal(e.getSceneX(), 0).getX());
    int from = dragged;
    dragged = -1;
    drop.setVisible(false);
    move(from, target > from ? target - 1 : target);
  }

  private void move(int from, int to) {
    int n = channel().design().stages().size();
    if (to < 0 || to >= n || to == from) return;
    String what = "move " + channel().design().stages().get(from).title().toLowerCase(Locale.ROOT);
    desk.edit(what, "", c -> c.design(d -> d.moveStage(from, to)));
  }

  private void remove(int stage) {
    String what =
        "take out " + channel().design().stages().get(stage).title().toLowerCase(Locale.ROOT);
    desk.edit(what, "", c -> c.design(d -> d.removeStage(stage)));
  }

  private Button insert(int place) {
    var b = new Button("+");
    b.setId("insert-" + place);
    b.getStyleClass().add("insert");
    b.setAccessibleText("Insert a stage here");
    b.setOnAction(e -> insertMenu(place).show(b, Side.BOTTOM, 0, 0));
    return b;
  }

  /** What can stand there, in its groups. */
  private ContextMenu insertMenu(int place) {
    var menu = new ContextMenu();
    for (List<Stage> group : channel().design().stagesThatFit(place)) {
      if (!menu.getItems().isEmpty()) menu.getItems().add(new SeparatorMenuItem());
      group.forEach(kind -> menu.getItems().add(insertItem(place, kind)));
    }
    if (menu.getItems().isEmpty()) {
      var none = new MenuItem("No stage can stand here");
      none.setDisable(true);
      menu.getItems().add(none);
    }
    return menu;
  }

  private MenuItem insertItem(int place, Stage kind) {
    var item = new MenuItem(kind.title());
    item.setId("insert-" + kind.title().toLowerCase(Locale.ROOT).replace(' ', '-'));
    item.setOnAction(
        e -> {
          boolean done =
              desk.edit(
                  "insert " + kind.title().toLowerCase(Locale.ROOT),
                  "",
                  c -> c.design(d -> d.insertStage(place, kind)));
          if (done) open.accept(place + 1);
        });
    return item;
  }

  private double padCentre(int pad) {
    double usable = getWidth() - Pad.WIDTH;
    return Pad.WIDTH / 2 + usable * pad / Math.max(1, pads.size() - 1);
  }

  private void place() {
    if (pads.isEmpty() || getWidth() < 100) return;
    copper.setStartX(padCentre(0));
    copper.setEndX(padCentre(pads.size() - 1));
    copper.setStartY(LINE);
    copper.setEndY(LINE);
    for (int i = 0; i < pads.size(); i++) {
      Pad p = pads.get(i);
      p.resizeRelocate(padCentre(i) - Pad.WIDTH / 2, 8, Pad.WIDTH, HEIGHT - 8);
    }
    double pitch = pads.size() < 2 ? 0 : padCentre(1) - padCentre(0);
    double width = Math.clamp(pitch - 84, 60, 140);
    for (int i = 0; i < cards.size(); i++) {
      double centre = (padCentre(i) + padCentre(i + 1)) / 2;
      cards.get(i).resizeRelocate(centre - width / 2, LINE - 21, width, 42);
    }
    for (int i = 0; i < inserts.size(); i++) {
      inserts.get(i).resizeRelocate(padCentre(i + 1) + 12, 4, 18, 18);
    }
  }

  private void fillCards(Channel c, Analysis a) {
    boolean sensor = c.design().sensor() != null;
    fill(
        0,
        sensor ? c.design().sensor().title() : "No sensor yet",
        sensor ? c.design().sensor().summary() : "define it first");
    int n = c.design().stages().size();
    for (int i = 0; i < n; i++)
      fill(i + 1, c.design().stages().get(i).title(), c.design().stages().get(i).summary());
    fill(n + 1, c.design().converter().title(), c.design().converter().summary());
    StoredCurve stored = c.receiver().stored();
    if (stored != null) {
      fill(n + 2, "Receiver's own", stored.origin());
      return;
    }
    String model = a.calibration().curve().map(Curve::title).orElse("Design equation");
    String of =
        c.calibration().designAdopted()
            ? "as it is"
            : c.calibration().adopted().points() + " points";
    fill(n + 2, model.replace("Least-squares line", "Best line").replace(" equation", ""), of);
  }

  private void fill(int card, String name, String summary) {
    VBox box = cards.get(card);
    ((Label) box.getChildren().get(0)).setText(name);
    ((Label) box.getChildren().get(1)).setText(summary);
    var words = new Tooltip(name + ", " + summary);
    ((Label) box.getChildren().get(0)).setTooltip(words);
    ((Label) box.getChildren().get(1)).setTooltip(words);
    box.setAccessibleText(words.getText());
  }

  /** Marks the element whose sheet is open. */
  void choose(int element) {
    for (int i = 0; i < cards.size(); i++) {
      cards.get(i).getStyleClass().remove("chosen");
      if (i == element) cards.get(i).getStyleClass().add("chosen");
    }
  }
}
