package nocking.app.step.define;

import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.SensorSwap;
import nocking.app.control.Column;
import nocking.app.control.DropDown;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.desk.Desk;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.quantity.Numbers;
import nocking.quantity.Sentence;
import nocking.quantity.Unit;

/**
 * Another sensor in the place of this one: what everything behind it would say, before it is done.
 */
final class SwapPanel extends VBox {
  private final Desk desk;
  private final DropDown<SensorCard> cards = new DropDown<>();
  private final Label sentence = new Label();
  private final Button accept = new Button("Fit it");
  private final Button behind = new Button("Fit it, the receiver keeps its curve");
  private final Label nodes = Paper.caption("");
  private final Grid grid;
  private SensorSwap swap = new SensorSwap(List.of(), "");

  SwapPanel(Desk desk) {
    this.desk = desk;
    setSpacing(6);
    cards.setId("swap-card");
    cards.setAccessibleText("Sensor card to fit");
    cards.setPromptText("choose a card…");
    cards.titled(SensorCard::name);
    cards.valueProperty().addListener((o, before, now) -> compare());
    accept.setId("swap-accept");
    accept.getStyleClass().add("primary");
    accept.setOnAction(e -> fit(false));
    behind.setId("swap-behind");
    behind.setOnAction(e -> fit(true));
    sentence.setId("swap-sentence");
    sentence.setWrapText(true);
    sentence.getStyleClass().add("result-line");
    sentence.setMaxWidth(Double.MAX_VALUE);
    grid =
        new Grid(
            "swap-grid",
            "Choose a card: nothing changes until it is fitted.",
            List.of(
                Column.shown("", 84, false, i -> row(i).where()),
                Column.shown("applied", 58, true, i -> amount(row(i).applied())),
                Column.shown("now V", 64, true, i -> Numbers.fixed(row(i).before(), 4)),
                Column.shown("then V", 64, true, i -> Numbers.fixed(row(i).after(), 4)),
                Column.shown("reads", 62, true, i -> amount(row(i).reading())),
                Column.shown("off by", 64, true, i -> Numbers.signed(row(i).error(), decimals()))
                    .styled(i -> fails(i) ? "text-fail" : ""),
                Column.shown("", 68, false, i -> row(i).clipped() ? "saturates" : "")),
            i -> false);
    grid.setMinHeight(130);
    VBox.setVgrow(grid, Priority.ALWAYS);
    var top = new FlowPane(10, 6, new Label("Fit instead"), cards, accept, behind);
    top.setAlignment(Pos.CENTER_LEFT);
    nodes.setId("swap-nodes");
    grid.table()
        .getSelectionModel()
        .selectedIndexProperty()
        .addListener((o, before, now) -> describe());
    getChildren().addAll(top, sentence, nodes, grid);
  }

  private SensorSwap.Row row(int i) {
    return swap.rows().get(i);
  }

  private int decimals() {
    return desk.analysis().design().decimals() + 1;
  }

  private String amount(double v) {
    return Numbers.fixed(v, desk.analysis().design().decimals());
  }

  private boolean fails(int i) {
    double tolerance = desk.channel().orElseThrow().definition().toleranceOrNaN();
    return Math.abs(row(i).error()) > tolerance;
  }

  /** Opens with a card that was chosen elsewhere. */
  void propose(SensorCard card) {
    cards.setValue(card);
    compare();
  }

  void switched() {
    cards.setValue(null);
  }

  void refresh() {
    Channel c = desk.channel().orElseThrow();
    List<SensorCard> same =
        desk.book().cards().stream()
            .filter(k -> Unit.of(k.unit()).dimension().equals(c.unit().dimension()))
            .toList();
    if (!cards.getItems().equals(same)) {
      SensorCard kept = cards.getValue();
      cards.getItems().setAll(same);
      cards.setValue(
          kept == null
              ? null
              : same.stream().filter(k -> k.id().equals(kept.id())).findFirst().orElse(null));
    }
    compare();
  }

  private void compare() {
    Optional<Channel> channel = desk.channel();
    SensorCard card = cards.getValue();
    accept.setDisable(card == null || !desk.editable());
    behind.setDisable(accept.isDisable());
    if (channel.isEmpty() || card == null) {
      swap = new SensorSwap(List.of(), "");
      sentence.setText("Nothing is compared yet.");
    } else {
      swap = SensorSwap.of(channel.get(), card.sensorIn(channel.get().unit()));
      String says = swap.says(channel.get().definition().unit());
      sentence.setText(says.isEmpty() ? "" : Sentence.capital(says) + ".");
    }
    grid.show(swap.rows().size());
    describe();
  }

  /** Every node at the selected row, at full scale where none is. */
  private void describe() {
    if (swap.rows().isEmpty()) {
      nodes.setText("");
      return;
    }
    int selected = grid.selectedRow();
    SensorSwap.Row r =
        selected >= 0 && selected < swap.rows().size()
            ? swap.rows().get(selected)
            : swap.fullScale();
    nodes.setText(Sentence.capital(r.where()) + ": " + r.nodes());
  }

  /**
   * @param keeps true where the receiver goes on by the curve that it has now
   */
  private void fit(boolean keeps) {
    SensorCard card = cards.getValue();
    if (card == null) return;
    if (keeps) {
      desk.edit("fit %s, receiver as it was".formatted(card.name()), "", card::putUnderReceiver);
    } else if (desk.edit("fit " + card.name(), "", card::putInto)) {
      desk.say(
          "%s is fitted. The calibration stays as it was until it is measured again."
              .formatted(card.name()),
          false);
    }
  }
}
