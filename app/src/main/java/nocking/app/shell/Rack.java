package nocking.app.shell;

import java.util.Collections;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.analysis.ChannelState;
import nocking.app.control.StateSign;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.quantity.Numbers;

/** The channels of the book with their state and worst error. */
final class Rack extends VBox {
  /** Letters of a tag and of a name that have room in a row. */
  private static final int MOST_TAG = 10;

  private static final int MOST_NAME = 22;

  private static final String WAITS =
      "A run was broken off here. In Collect it can be gone on with, or ended with its points kept.";

  private final Desk desk;
  private final ListView<Channel> list = new ListView<>();
  private final Map<Channel, Row> rows = new IdentityHashMap<>();

  /** What each channel's row said last, by the key of the channel. */
  private final Map<String, Row> before = new HashMap<>();

  private final Set<Channel> awaited = Collections.newSetFromMap(new IdentityHashMap<>());
  private List<SensorCard> cards = List.of();
  private final Label title = new Label("CHANNELS");
  private final Button add = new Button("New channel");
  private final Rail rail;
  private boolean showing;

  /**
   * What a row says of its channel.
   *
   * @param worst worst error in the channel's unit, without its sign
   */
  private record Row(ChannelState state, Optional<Double> worst) {
    static Row of(Analysis a) {
      return new Row(ChannelState.of(a), a.acceptance().worstError());
    }
  }

  Rack(Desk desk, Runnable newChannel) {
    this.desk = desk;
    getStyleClass().add("rack");
    rail = new Rail(desk, "channels", this, false, this::folded);
    title.getStyleClass().add("section-title");
    title.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(title, Priority.ALWAYS);
    var head = new HBox(title, rail.button());
    head.setAlignment(Pos.CENTER_LEFT);
    list.setId("rack");
    list.setAccessibleText("Channels");
    list.setFixedCellSize(39);
    list.setCellFactory(v -> new ChannelCell());
    list.getSelectionModel()
        .selectedItemProperty()
        .addListener(
            (o, before, now) -> {
              if (!showing && now != null) desk.select(now.id());
            });
    VBox.setVgrow(list, Priority.ALWAYS);
    add.setId("rack-new");
    add.setAccessibleText("New channel");
    add.setOnAction(e -> newChannel.run());
    var foot = new HBox(add);
    foot.getStyleClass().add("rack-foot");
    getChildren().addAll(head, list, foot);
    desk.runs().listen(this::marks);
  }

  /** Says anew which channels have a run; the rows stay as they are. */
  private void marks() {
    list.lookupAll(".list-cell").stream()
        .filter(n -> n instanceof ChannelCell cell && !cell.isEmpty() && cell.getItem() != null)
        .map(ChannelCell.class::cast)
        .forEach(cell -> cell.runs(cell.getItem()));
  }

  /** Folds to the signs of the channels, or shows them with their names again. */
  void toggle() {
    rail.toggle();
  }

  private void folded() {
    title.setVisible(!rail.folded());
    title.setManaged(!rail.folded());
    add.setText(rail.folded() ? "+" : "New channel");
    list.refresh();
  }

  /** Shows the book; rows whose channel is the same object stay as they are. */
  void refresh() {
    showing = true;
    var items = list.getItems();
    var channels = desk.book().channels();
    if (cards != desk.book().cards()) {
      // What is said of a sensor depends on the cards.
      cards = desk.book().cards();
      rows.clear();
      awaited.clear();
      list.refresh();
    }
    if (items.size() != channels.size()) {
      items.setAll(channels);
    } else {
      for (int i = 0; i < channels.size(); i++) {
        if (items.get(i) != channels.get(i)) items.set(i, channels.get(i));
      }
    }
    desk.channel()
        .ifPresent(
            c -> {
              int at = channels.indexOf(c);
              if (list.getSelectionModel().getSelectedIndex() != at) {
                list.getSelectionModel().clearAndSelect(at);
                list.scrollTo(Math.max(0, at - 3));
              }
            });
    showing = false;
    Set<Channel> there = identities(channels);
    rows.keySet().retainAll(there);
    awaited.retainAll(there);
  }

  private static Set<Channel> identities(List<Channel> channels) {
    Set<Channel> set = Collections.newSetFromMap(new IdentityHashMap<>());
    set.addAll(channels);
    return set;
  }

  /**
   * What the row of a channel says. It is worked out in the background, and filled when that is
   * done; meanwhile it says what it said before the last change.
   */
  private Optional<Row> row(Channel c) {
    if (rows.containsKey(c)) return Optional.of(rows.get(c));
    Analysis a = desk.analysis(c);
    if (awaited.add(c)) Background.run(() -> Row.of(a), row -> filled(a, row));
    return Optional.ofNullable(before.get(c.id()));
  }

  private void filled(Analysis a, Row row) {
    Channel c = a.channel();
    // A channel that was changed meanwhile is another one, and is looked at anew with other cards.
    if (!awaited.contains(c) || desk.analysis(c) != a) return;
    awaited.remove(c);
    rows.put(c, row);
    before.put(c.id(), row);
    for (int i = 0; i < list.getItems().size(); i++) {
      if (list.getItems().get(i) == c) fill(i, c);
    }
  }

  /** Shows a row anew without touching the selection. */
  private void fill(int index, Channel c) {
    list.lookupAll(".list-cell").stream()
        .filter(n -> n instanceof ChannelCell cell && cell.getIndex() == index)
        .forEach(n -> ((ChannelCell) n).say(c));
  }

  private final class ChannelCell extends ListCell<Channel> {
    private final Label tag = new Label();
    private final Label name = new Label();
    private final Label worst = new Label();
    private final Label mark = new Label();
    private final HBox sign = new HBox();
    private final HBox row;
    private final VBox words;
    private final Tooltip tip = new Tooltip();

    ChannelCell() {
      tag.getStyleClass().add("tag");
      name.getStyleClass().add("name");
      worst.getStyleClass().add("worst");
      worst.setMinWidth(Region.USE_PREF_SIZE);
      sign.setAlignment(Pos.CENTER);
      sign.setMinWidth(14);
      mark.getStyleClass().add("run-mark");
      mark.setMinWidth(Region.USE_PREF_SIZE);
      name.setMinWidth(0);
      HBox.setHgrow(name, Priority.ALWAYS);
      name.setMaxWidth(Double.MAX_VALUE);
      var gap = new Region();
      HBox.setHgrow(gap, Priority.ALWAYS);
      tag.setMinWidth(0);
      words = new VBox(-1, new HBox(4, tag, gap, worst), new HBox(4, name, mark));
      words.setAlignment(Pos.CENTER_LEFT);
      HBox.setHgrow(words, Priority.ALWAYS);
      words.setMinWidth(0);
      row = new HBox(9, sign, words);
      row.setAlignment(Pos.CENTER_LEFT);
      setPrefWidth(0);
    }

    @Override
    protected void updateItem(Channel c, boolean empty) {
      super.updateItem(c, empty);
      if (empty || c == null) {
        setGraphic(null);
        setTooltip(null);
        setAccessibleText(null);
        return;
      }
      say(c);
      setGraphic(row);
    }

    /** A run of the channel that is under way, or waits for somebody. */
    private void runs(Channel c) {
      boolean running = desk.runs().running() && desk.runs().reads(c.id());
      boolean waits = !running && desk.runs().waiting(c.id()).isPresent();
      String says = running ? "running" : waits ? "run waits" : "";
      mark.setVisible(!says.isEmpty());
      mark.setManaged(!says.isEmpty());
      if (mark.getText().equals(says)) return;
      mark.setText(says);
      mark.setTooltip(waits ? new Tooltip(WAITS) : null);
    }

    private void say(Channel c) {
      words.setVisible(!rail.folded());
      words.setManaged(!rail.folded());
      tag.setText(c.tag());
      name.setText(
          c.definition().name().isBlank() ? c.definition().kind().title() : c.definition().name());
      Optional<Row> known = row(c);
      worst.setText(
          known
              .flatMap(Row::worst)
              .map(e -> (Numbers.significant(e, 2) + " " + c.definition().unit()).strip())
              .orElse(known.isPresent() ? "–" : ""));
      sign.getChildren().setAll(known.map(r -> StateSign.of(r.state())).stream().toList());
      runs(c);
      String state = known.map(r -> ", " + StateSign.words(r.state())).orElse("");
      String run = mark.isVisible() ? ", " + mark.getText() : "";
      setAccessibleText(c.tag() + ", " + name.getText() + state + run);
      tip.setText(c.tag() + " · " + name.getText() + (run.isEmpty() ? "" : " · " + mark.getText()));
      // Only what has no room says itself once more.
      boolean cut = c.tag().length() > MOST_TAG || name.getText().length() > MOST_NAME;
      tag.setTooltip(cut ? tip : null);
      name.setTooltip(cut ? tip : null);
      setTooltip(rail.folded() ? tip : null);
    }
  }
}
