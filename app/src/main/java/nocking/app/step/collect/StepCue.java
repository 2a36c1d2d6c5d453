package nocking.app.step.collect;

import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.layout.HBox;
import nocking.app.control.EntryField;
import nocking.app.desk.Desk;
import nocking.procedure.Deed;
import nocking.procedure.Step;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.RunProgress.Phase;
import nocking.run.RunSnapshot;

/** What a step of a procedure says, and the button with which the hands say that it is done. */
final class StepCue extends HBox {
  private final Desk desk;
  private final Runnable then;
  private final EntryField place;
  private final Button done = new Button();
  private double at;
  private String placeFor = "";

  /**
   * @param then called when the hands have said that they are done
   */
  StepCue(Desk desk, Runnable then) {
    super(10);
    this.desk = desk;
    this.then = then;
    setAlignment(Pos.CENTER_LEFT);
    place =
        new EntryField(
                "run-place-now",
                "It is at",
                true,
                t ->
                    at =
                        t.isBlank()
                            ? Double.NaN
                            : Value.typed(t, Unit.of(now().plan().unit())).number(),
                () -> {})
            .whenDone()
            .prompt("not read");
    done.setId("run-done");
    done.getStyleClass().add("cue-button");
    done.setMinWidth(USE_PREF_SIZE);
    done.setOnAction(e -> done());
    getChildren().addAll(place, done);
  }

  private RunSnapshot now() {
    return desk.runs().now().orElseThrow();
  }

  /** Shows the button while hands are waited for. */
  void show(RunSnapshot n) {
    Optional<Step> step = n.step();
    boolean waits = n.hands() && step.isPresent() && n.phase() != Phase.HELD;
    setVisible(waits && desk.runs().running());
    setManaged(waits && desk.runs().running());
    if (!waits) return;
    Step s = step.get();
    boolean eye = n.plan().reference().byHand();
    double before = n.points().isEmpty() ? 0 : n.points().getLast().applied();
    // How far a hand has turned is not known before someone reads it.
    boolean turned = s.deed() == Deed.LOOSEN;
    // Each step of each run is asked anew, and so is one that is taken once more.
    String of = "%s %d %d".formatted(desk.runs().id(), n.next(), n.points().size());
    if (!of.equals(placeFor)) at = eye && turned ? Double.NaN : s.placed() ? s.at() : before;
    placeFor = of;
    place.setVisible(eye && s.placed());
    place.setManaged(eye && s.placed());
    place.show(Double.isNaN(at) ? "" : Numbers.trimmed(at, 6), n.plan().unit());
    done.setText(s.byHand() ? s.done() : "It is there");
  }

  /** Says that the hands are done, as its button does. */
  void done() {
    desk.runs().ready(at, "");
    then.run();
  }

  /** What to do, in large letters. */
  static String what(RunSnapshot n, Step s) {
    return switch (n.phase()) {
      case AVERAGING -> "Do not touch: reading";
      case HELD -> "Held before: " + s.title();
      case SETTLING ->
          n.plan().typed() ? "Read the meter" : s.hold() > 0 ? "Hold it there" : "Let it settle";
      default -> s.title();
    };
  }

  /** What else there is to know. */
  static String how(RunSnapshot n, Step s) {
    String left =
        n.phase() != Phase.SETTLING
            ? ""
            : n.plan().typed()
                ? "Once it stands, type what it reads, with Enter. "
                : n.left() > 0 ? "About %.0f s left. ".formatted(Math.ceil(n.left())) : "";
    if (n.phase() == Phase.AVERAGING) {
      return "%d of %d readings.".formatted(n.averaged(), n.plan().average());
    }
    return left + where(n, s) + s.detail() + deadline(n, s);
  }

  private static String where(RunSnapshot n, Step s) {
    boolean eye = n.plan().reference().byHand();
    if (!s.placed() || eye || n.phase() != Phase.APPROACHING) return "";
    String to = (Numbers.trimmed(s.at(), 6) + " " + n.plan().unit()).strip();
    return n.last()
        .filter(l -> Double.isFinite(l.applied()))
        .map(l -> "To %s; the reference reads %s. ".formatted(to, Numbers.trimmed(l.applied(), 5)))
        .orElse("To " + to + ". ");
  }

  private static String deadline(RunSnapshot n, Step s) {
    if (s.until() == Long.MAX_VALUE || n.last().isEmpty()) return "";
    double left = (s.until() - n.last().get().at()) * 1e-3;
    return left > 0
        ? " %.0f s are left for it.".formatted(left)
        : " Its time is over: it has fallen back.";
  }

  /** How far a reading is from what the step wants; empty where it wants nothing. */
  static String wanted(Step s, double volts) {
    if (!Double.isFinite(s.low()) || !Double.isFinite(volts)) return "";
    double middle = (s.low() + s.high()) / 2;
    String window = "%s … %s V".formatted(Numbers.fixed(s.low(), 4), Numbers.fixed(s.high(), 4));
    boolean in = volts >= s.low() && volts <= s.high();
    return in
        ? "Within %s.".formatted(window)
        : "%s mV from the middle of %s."
            .formatted(Numbers.signed(1000 * (volts - middle), 1), window);
  }
}
