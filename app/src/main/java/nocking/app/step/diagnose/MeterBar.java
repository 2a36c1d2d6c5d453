package nocking.app.step.diagnose;

import java.util.List;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import nocking.app.control.EntryField;
import nocking.app.desk.Desk;
import nocking.prior.PriorWeights;
import nocking.quantity.Numbers;
import nocking.wiring.Meter;

/** What the meter in hand can: a row of fields that breaks where it is narrow. */
final class MeterBar extends FlowPane {
  private final Desk desk;
  private final EntryField accuracy;
  private final EntryField counts;
  private final EntryField input;

  MeterBar(Desk desk) {
    super(8, 6);
    this.desk = desk;
    accuracy =
        new EntryField(
                "diagnose-accuracy",
                "Accuracy ±",
                false,
                text -> use(m -> m.withAccuracy(text)),
                desk::seal)
            .help("Percent of reading and last digits, for example 0.5 % + 2.")
            .bare();
    counts =
        new EntryField(
                "diagnose-counts", "Counts", true, text -> use(m -> m.withCounts(text)), desk::seal)
            .help("Counts of the meter's display, for example 6000.")
            .bare();
    input =
        new EntryField(
                "diagnose-input",
                "Input resistance",
                true,
                text -> use(m -> m.withInputResistance(text)),
                desk::seal)
            .help("What a voltage range of the meter draws through, for example 10M.")
            .bare();
    accuracy.field().setMaxWidth(78);
    counts.field().setMaxWidth(48);
    input.field().setMaxWidth(50);
    setAlignment(Pos.CENTER_LEFT);
    getChildren().addAll(new Label("Meter"), accuracy, counts, input);
  }

  private void use(UnaryOperator<Meter> change) {
    PriorWeights w = desk.book().priorWeights();
    Meter next = change.apply(w.meter());
    desk.editBook("change the meter", "meter", b -> b.withPriorWeights(w.withMeter(next)));
  }

  void refresh() {
    Meter meter = desk.book().priorWeights().meter();
    accuracy.show(meter.accuracy(), "");
    counts.show(Numbers.trimmed(meter.counts(), 8), "");
    input.show(Numbers.compact(meter.inputResistance(), "", 4).strip(), "Ω");
    for (EntryField f : List.of(accuracy, counts, input)) f.field().setEditable(desk.writable());
  }
}
