package nocking.bench.instrument;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.run.Instrument;

/**
 * An instrument that speaks standard commands (SCPI-1999, IEEE 488.2): {@code *IDN?} and whatever
 * asks it for a reading.
 */
final class ScpiInstrument implements Reference {
  private static final String ERROR = "SYST:ERR?";

  /** Errors that a queue holds at most; one that never ends is none. */
  private static final int MOST_ERRORS = 32;

  private final Instrument instrument;
  private final Dialogue line;
  private final List<String> notes = new ArrayList<>();
  private boolean asked;
  private boolean emptied;

  ScpiInstrument(Instrument instrument, Dialogue line) {
    this.instrument = instrument;
    this.line = line;
  }

  /**
   * A reply belongs to its question: what lies in the line before it is none of this one. The first
   * time it may be a greeting; later it answers something that was asked before, or nothing.
   */
  private String ask(String question) throws InstrumentException {
    String before = line.drain();
    boolean greeting = !asked;
    asked = true;
    if (!before.isEmpty() && !greeting) {
      throw new InstrumentException(
          Kind.ODD_ANSWER,
          "%s sent '%s' without being asked".formatted(instrument.name(), Reply.shown(before)));
    }
    return line.ask(question).strip();
  }

  @Override
  public String identity() throws InstrumentException {
    String who = ask("*IDN?");
    // Four fields (IEEE 488.2-1992, 10.14); a number alone is the answer to something else.
    if (who.split(",").length < 2) throw Reply.odd(instrument, who, "its name");
    return who;
  }

  @Override
  public double read() throws InstrumentException {
    return Reply.number(instrument, ask(instrument.ask().isEmpty() ? "READ?" : instrument.ask()));
  }

  @Override
  public void bringTo(double setPoint) throws InstrumentException {
    if (!instrument.settable()) return;
    if (!emptied) emptyQueue();
    line.tell(instrument.set().replace("%s", String.format(Locale.ROOT, "%.9g", setPoint)));
    String error = ask(ERROR);
    if (!none(error)) {
      throw new InstrumentException(
          Kind.ODD_ANSWER,
          "%s does not take the set point: %s".formatted(instrument.name(), Reply.shown(error)));
    }
  }

  private static boolean none(String error) {
    return error.startsWith("0") || error.startsWith("+0");
  }

  /** What went wrong before is none of the first set point (SCPI-1999 volume 2, 21.8). */
  private void emptyQueue() throws InstrumentException {
    var held = new ArrayList<String>();
    String error = ask(ERROR);
    while (!none(error) && held.size() < MOST_ERRORS) {
      held.add(Reply.shown(error));
      error = ask(ERROR);
    }
    line.tell("*CLS");
    emptied = true;
    if (!held.isEmpty()) {
      notes.add(
          "%s had errors of before in its queue: %s"
              .formatted(instrument.name(), String.join("; ", held)));
    }
  }

  @Override
  public List<String> notes() {
    List<String> said = List.copyOf(notes);
    notes.clear();
    return said;
  }

  @Override
  public void close() {
    line.close();
  }
}
