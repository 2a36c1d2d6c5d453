package nocking.app.shell;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.IntConsumer;
import javafx.scene.Node;
import javafx.scene.control.ContentDisplay;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.VBox;
import nocking.algebra.Notation;
import nocking.analysis.Analysis;
import nocking.app.desk.Desk;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.stage.Stage;

/**
 * Finds a channel, a command, an element of the path, its parameters, a sensor card or a stage to
 * insert by a few letters; words are looked for in any order.
 */
final class Finder extends VBox {
  private static final int SHOWN = 9;

  private record Hit(String what, String where, Runnable action) {}

  private final Desk desk;
  private final Commands commands;
  private final IntConsumer openElement;
  private final Consumer<SensorCard> openCard;
  private final TextField query = new TextField();
  private final ListView<Hit> list = new ListView<>();
  private final Label nothing = new Label();
  private Node returnTo;

  Finder(Desk desk, Commands commands, IntConsumer openElement, Consumer<SensorCard> openCard) {
    this.desk = desk;
    this.commands = commands;
    this.openElement = openElement;
    this.openCard = openCard;
    getStyleClass().add("finder");
    setId("finder");
    setMaxSize(460, USE_PREF_SIZE);
    query.setId("finder-query");
    query.setPromptText("Find a channel, a command, a part, a card …");
    query.setAccessibleText("Find");
    query.textProperty().addListener(o -> search());
    query.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    query
        .focusedProperty()
        .addListener(
            (o, b, now) -> {
              if (!now && isVisible()) close();
            });
    list.setId("finder-list");
    list.setFixedCellSize(28);
    list.setPrefHeight(SHOWN * 28 + 2);
    list.setFocusTraversable(false);
    list.setCellFactory(v -> new HitCell());
    list.setOnMousePressed(e -> take());
    list.setPlaceholder(nothing);
    nothing.setId("finder-nothing");
    nothing.getStyleClass().add("quiet");
    nothing.setWrapText(true);
    getChildren().addAll(query, list);
    setVisible(false);
    managedProperty().bind(visibleProperty());
  }

  void open() {
    returnTo = getScene().getFocusOwner();
    setVisible(true);
    query.clear();
    search();
    query.requestFocus();
  }

  private void close() {
    setVisible(false);
    if (returnTo != null) returnTo.requestFocus();
  }

  private void key(KeyEvent e) {
    int at = list.getSelectionModel().getSelectedIndex();
    if (e.getCode() == KeyCode.ESCAPE) close();
    else if (e.getCode() == KeyCode.ENTER) take();
    else if (e.getCode() == KeyCode.DOWN) list.getSelectionModel().select(at + 1);
    else if (e.getCode() == KeyCode.UP) list.getSelectionModel().select(Math.max(0, at - 1));
    else return;
    list.scrollTo(Math.max(0, list.getSelectionModel().getSelectedIndex() - 3));
    e.consume();
  }

  private void take() {
    Hit hit = list.getSelectionModel().getSelectedItem();
    close();
    if (hit != null) hit.action.run();
  }

  private void search() {
    String q = query.getText().strip().toLowerCase(Locale.ROOT);
    var hits = new ArrayList<Hit>();
    String[] words = q.split("\\s+");
    for (Hit h : everything()) {
      String text = (h.what + " " + h.where).toLowerCase(Locale.ROOT);
      if (Arrays.stream(words).allMatch(text::contains)) hits.add(h);
    }
    nothing.setText("Nothing here is called '%s'.".formatted(query.getText().strip()));
    list.getItems().setAll(hits);
    if (!hits.isEmpty()) list.getSelectionModel().select(0);
  }

  private List<Hit> everything() {
    var all = new ArrayList<Hit>();
    for (Channel c : desk.book().channels()) {
      all.add(
          new Hit(c.tag() + "  " + c.definition().name(), "channel", () -> desk.select(c.id())));
    }
    for (Commands.Command c : commands.all()) {
      all.add(new Hit(c.name(), c.keys().replace("Shortcut", "Ctrl"), c.action()));
    }
    desk.channel()
        .ifPresent(
            c -> {
              elements(c, all);
              symbols(desk.analysis(), all);
              cards(c, all);
              insertions(c, all);
            });
    return all;
  }

  private void elements(Channel c, List<Hit> all) {
    if (c.design().sensor() != null) {
      all.add(new Hit(c.design().sensor().title(), "sensor", () -> openElement.accept(0)));
    }
    for (int i = 0; i < c.design().stages().size(); i++) {
      int at = i + 1;
      all.add(
          new Hit(c.design().stages().get(i).title(), "stage " + at, () -> openElement.accept(at)));
    }
    int converter = c.design().stages().size() + 1;
    all.add(new Hit("Converter", "element", () -> openElement.accept(converter)));
  }

  /** Cards that the channel can take; one that is chosen opens where sensors are swapped. */
  private void cards(Channel c, List<Hit> all) {
    for (SensorCard card : desk.book().cards()) {
      if (!Unit.of(card.unit()).dimension().equals(c.unit().dimension())) continue;
      all.add(
          new Hit(
              card.name() + "  " + card.sensor().summary(),
              "sensor card",
              () -> openCard.accept(card)));
    }
  }

  /** Stages that can stand behind everything that is there. */
  private void insertions(Channel c, List<Hit> all) {
    if (!desk.editable()) return;
    int place = c.design().stages().size();
    for (Stage kind : c.design().stagesThatFit(place).stream().flatMap(List::stream).toList()) {
      String name = kind.title().toLowerCase(Locale.ROOT);
      all.add(
          new Hit(
              "Insert " + name,
              "before the converter",
              () -> {
                if (desk.edit(
                    "insert " + name,
                    "",
                    d -> d.design(design -> design.insertStage(place, kind)))) {
                  openElement.accept(place + 1);
                }
              }));
    }
  }

  private void symbols(Analysis a, List<Hit> all) {
    a.design()
        .path()
        .ifPresent(
            p ->
                p.owners().entrySet().stream()
                    .sorted(Map.Entry.comparingByKey())
                    .forEach(
                        e ->
                            all.add(
                                new Hit(
                                    "%s  %s = %s"
                                        .formatted(
                                            Notation.greek(e.getKey()),
                                            e.getValue().field().label(),
                                            Numbers.trimmed(p.constants().get(e.getKey()), 6)),
                                    "symbol",
                                    () -> openElement.accept(e.getValue().element())))));
  }

  private static final class HitCell extends ListCell<Hit> {
    private final Label where = new Label();

    HitCell() {
      where.getStyleClass().add("quiet");
    }

    @Override
    protected void updateItem(Hit hit, boolean empty) {
      super.updateItem(hit, empty);
      setText(empty || hit == null ? null : hit.what);
      setGraphic(empty || hit == null ? null : where);
      setContentDisplay(ContentDisplay.RIGHT);
      setGraphicTextGap(16);
      if (hit != null) where.setText(hit.where);
    }
  }
}
