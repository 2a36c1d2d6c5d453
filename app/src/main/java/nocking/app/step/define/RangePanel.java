package nocking.app.step.define;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.VPos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.RangeChoice;
import nocking.analysis.RangeChoice.Verdict;
import nocking.app.control.Column;
import nocking.app.control.EntryField;
import nocking.app.control.Grid;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.quantity.Ends;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/** Which range? The candidates' spans against the job, the least that holds it marked. */
final class RangePanel extends VBox {
  private final Desk desk;
  private final Latest work = new Latest();
  private final EntryField spansField;
  private final EntryField percentField;
  private final Grid grid;
  private final Button take = new Button("Fit the selected card");
  private List<Span> spans = List.of();
  private double percent = 0.5;
  private List<RangeChoice> choices = List.of();

  RangePanel(Desk desk, Consumer<SensorCard> chosen) {
    this.desk = desk;
    setSpacing(6);
    spansField =
        new EntryField("range-spans", "Other spans", false, this::takeSpans, () -> {})
            .prompt("0…100, 0…250")
            .help("Spans of sensors that have no card, for example 0…100, 0…250.");
    percentField =
        new EntryField("range-percent", "Error of each", true, this::takePercent, () -> {})
            .help("Error of every candidate in percent of its span, as datasheets state it.");
    spansField.bare();
    spansField.field().setMaxWidth(160);
    spansField.field().setPrefColumnCount(14);
    percentField.bare();
    var fields =
        new FlowPane(
            8, 4, new Label("Other spans"), spansField, new Label("error of each"), percentField);
    fields.setRowValignment(VPos.CENTER);
    grid =
        new Grid(
            "range-grid",
            "No card measures this quantity yet. Type spans above, or keep a sensor as a card.",
            List.of(
                Column.shown("sensor card", 118, false, i -> at(i).name()),
                Column.shown("", 88, false, i -> at(i).says()).styled(this::style),
                Column.shown("span", 66, true, i -> span(at(i).span())),
                Column.shown("used", 42, true, i -> share(at(i).used())),
                Column.shown("spare", 42, true, i -> share(at(i).headRoom())),
                Column.shown("1 count", 56, true, i -> amount(at(i).count())),
                Column.shown("error", 54, true, i -> "±" + amount(at(i).error()))),
            i -> at(i).verdict() == Verdict.SATURATES);
    VBox.setVgrow(grid, Priority.ALWAYS);
    grid.setMinHeight(110);
    take.setId("range-take");
    take.setOnAction(
        e ->
            Optional.of(grid.selectedRow())
                .filter(i -> i >= 0 && i < choices.size())
                .flatMap(i -> choices.get(i).card())
                .ifPresent(chosen));
    getChildren().addAll(fields, grid, take);
  }

  private RangeChoice at(int i) {
    return choices.get(i);
  }

  private static String span(Span s) {
    return Numbers.trimmed(s.low(), 5) + "…" + Numbers.trimmed(s.high(), 5);
  }

  private static String share(double v) {
    return Double.isNaN(v) ? "–" : Numbers.fixed(100 * v, 0) + " %";
  }

  private static String amount(double v) {
    return Double.isNaN(v) ? "–" : Numbers.significant(v, 2);
  }

  private String style(int i) {
    return switch (at(i).verdict()) {
      case SMALLEST -> "text-pass";
      case SATURATES -> "text-fail";
      default -> "";
    };
  }

  private void takeSpans(String text) {
    var next = new ArrayList<Span>();
    Unit unit = desk.channel().orElseThrow().unit();
    for (String part : text.split("[,;]")) {
      if (part.isBlank()) continue;
      next.add(Ends.typed(part, unit).span());
    }
    spans = next;
    refresh();
  }

  private void takePercent(String text) {
    double v = Value.typed(text, Unit.PERCENT).number();
    if (!(v >= 0)) throw new QuantityException("an error must be at least 0 %");
    percent = v;
    refresh();
  }

  void switched() {
    spans = List.of();
    spansField.show("", "");
    show(List.of());
  }

  void refresh() {
    Channel c = desk.channel().orElseThrow();
    percentField.show(Numbers.plain(percent), "%");
    boolean usable = c.design().sensor() != null || !desk.book().cards().isEmpty();
    List<SensorCard> cards = usable ? desk.book().cards() : List.of();
    List<Span> others = usable ? spans : List.of();
    double each = percent;
    // Every card is put into the channel and its path worked out anew: too much for a frame.
    work.run(
        () -> RangeChoice.of(c, cards, others, each),
        found -> {
          if (desk.channel().filter(now -> now == c).isPresent()) show(found);
        });
  }

  private void show(List<RangeChoice> found) {
    choices = found;
    grid.show(choices.size());
    take.setDisable(!desk.editable() || choices.stream().allMatch(k -> k.card().isEmpty()));
  }
}
