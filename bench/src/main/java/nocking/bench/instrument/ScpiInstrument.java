package nocking.bench.instrument;

import java.util.Locale;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.run.Instrument;

/**
 * An instrument that speaks standard commands (SCPI-1999, IEEE 488.2): {@code *IDN?} and whatever
 * asks it for a reading.
 */
final class ScpiInstrument implements Reference {
  private final Instrument instrument;
  private final Line line;
  private boolean asked;

  ScpiInstrument(Instrument instrument, Line line) {
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
    line.send(question);
    return line.receive().strip();
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
    line.send(instrument.set().replace("%s", String.format(Locale.ROOT, "%.9g", setPoint)));
    String error = ask("SYST:ERR?");
    if (!error.startsWith("0") && !error.startsWith("+0")) {
      throw new InstrumentException(
          Kind.ODD_ANSWER,
          "%s does not take the set point: %s".formatted(instrument.name(), Reply.shown(error)));
    }
  }

  @Override
  public void close() {
    line.close();
  }
}
