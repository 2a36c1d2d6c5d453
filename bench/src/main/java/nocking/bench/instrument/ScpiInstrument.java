package nocking.bench.instrument;

import java.util.Locale;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.quantity.Sentence;
import nocking.run.Instrument;

/**
 * An instrument that speaks standard commands (SCPI-1999, IEEE 488.2): {@code *IDN?} and whatever
 * asks it for a reading.
 */
final class ScpiInstrument implements Reference {
  /** What stands for too much, and for no number (SCPI-1999 volume 1, 7.2.1.4 and 7.2.1.5). */
  private static final double INFINITY = 9.9e37;

  private final Instrument instrument;
  private final Line line;

  ScpiInstrument(Instrument instrument, Line line) {
    this.instrument = instrument;
    this.line = line;
  }

  private String ask(String question) throws InstrumentException {
    line.send(question);
    return line.receive().strip();
  }

  @Override
  public String identity() throws InstrumentException {
    String who = ask("*IDN?");
    // Four fields (IEEE 488.2-1992, 10.14); a number alone is the answer to something else.
    if (who.split(",").length < 2) throw odd(who, "its name");
    return who;
  }

  @Override
  public double read() throws InstrumentException {
    String answer = ask(instrument.ask().isEmpty() ? "READ?" : instrument.ask());
    double v;
    try {
      v = Double.parseDouble(answer);
    } catch (NumberFormatException e) {
      throw odd(answer, "a number");
    }
    if (!(Math.abs(v) < INFINITY)) {
      throw new InstrumentException(Kind.OVERRANGE, instrument.name() + " is beyond its range");
    }
    return v;
  }

  @Override
  public void bringTo(double setPoint) throws InstrumentException {
    if (!instrument.settable()) return;
    line.send(instrument.set().replace("%s", String.format(Locale.ROOT, "%.9g", setPoint)));
    String error = ask("SYST:ERR?");
    if (!error.startsWith("0") && !error.startsWith("+0")) {
      throw new InstrumentException(
          Kind.ODD_ANSWER,
          "%s does not take the set point: %s".formatted(instrument.name(), shown(error)));
    }
  }

  private InstrumentException odd(String answer, String expected) {
    return new InstrumentException(
        Kind.ODD_ANSWER,
        "%s answered '%s', expected %s".formatted(instrument.name(), shown(answer), expected));
  }

  private static String shown(String answer) {
    String readable = Sentence.readable(answer);
    return readable.length() > 60 ? readable.substring(0, 60) + " …" : readable;
  }

  @Override
  public void close() {
    line.close();
  }
}
