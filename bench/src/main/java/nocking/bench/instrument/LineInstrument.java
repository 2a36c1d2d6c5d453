package nocking.bench.instrument;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.quantity.Sentence;
import nocking.run.Instrument;

/**
 * An instrument of which each line holds a reading: the usual board that prints its converter's
 * counts, or a thermometer that reports by itself.
 */
final class LineInstrument implements Reference {
  /** The first number of a line; possessive, so that no line takes longer than its length. */
  private static final Pattern NUMBER =
      Pattern.compile("[-+]?(?:\\d++(?:\\.\\d*+)?+|\\.\\d++)(?:[eE][-+]?\\d++)?+");

  private final Instrument instrument;
  private final Line line;
  private final Pattern pattern;

  LineInstrument(Instrument instrument, Line line) throws InstrumentException {
    this.instrument = instrument;
    this.line = line;
    try {
      pattern = instrument.pattern().isEmpty() ? null : Pattern.compile(instrument.pattern());
    } catch (PatternSyntaxException e) {
      line.close();
      throw new InstrumentException(
          Kind.ODD_ANSWER,
          "%s: '%s' is no pattern: %s"
              .formatted(instrument.name(), instrument.pattern(), e.getDescription()));
    }
  }

  @Override
  public String identity() {
    return "";
  }

  @Override
  public double read() throws InstrumentException {
    // A reading is what comes now: lines that were sent while nobody looked are of then.
    line.drain();
    if (!instrument.ask().isEmpty()) line.send(instrument.ask());
    String answer = line.receive();
    String field = field(answer);
    try {
      return Double.parseDouble(field);
    } catch (NumberFormatException e) {
      throw odd(answer);
    }
  }

  private String field(String answer) throws InstrumentException {
    if (pattern == null) {
      Matcher m = NUMBER.matcher(answer);
      if (m.find()) return m.group();
      throw odd(answer);
    }
    Matcher m = pattern.matcher(answer);
    if (m.find() && m.groupCount() > 0 && m.group(1) != null) return m.group(1);
    throw odd(answer);
  }

  private InstrumentException odd(String answer) {
    String readable = Sentence.readable(answer);
    String shown = readable.length() > 60 ? readable.substring(0, 60) + " …" : readable;
    return new InstrumentException(
        Kind.ODD_ANSWER,
        "%s sent '%s', expected %s"
            .formatted(
                instrument.name(),
                shown,
                pattern == null ? "a number" : "what fits " + instrument.pattern()));
  }

  @Override
  public void bringTo(double setPoint) throws InstrumentException {
    if (!instrument.settable()) return;
    line.send(instrument.set().replace("%s", String.format(Locale.ROOT, "%.9g", setPoint)));
  }

  @Override
  public void close() {
    line.close();
  }
}
