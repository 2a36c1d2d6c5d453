package nocking.bench.instrument;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.Locale;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.run.Instrument;

/**
 * An instrument of which each line holds a reading: the usual board that prints its converter's
 * counts, or a thermometer that reports by itself.
 */
final class LineInstrument implements Reference {
  private final Instrument instrument;
  private final Dialogue line;
  private final Pattern pattern;

  LineInstrument(Instrument instrument, Dialogue line) throws InstrumentException {
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
    String answer = instrument.ask().isEmpty() ? line.receive() : line.ask(instrument.ask());
    return Reply.number(instrument, pattern == null ? answer : field(answer));
  }

  private String field(String answer) throws InstrumentException {
    Matcher m = pattern.matcher(answer);
    if (m.find() && m.groupCount() > 0 && m.group(1) != null) return m.group(1);
    throw Reply.odd(instrument, answer, "what fits " + instrument.pattern());
  }

  @Override
  public void bringTo(double setPoint) throws InstrumentException {
    if (!instrument.settable()) return;
    line.tell(instrument.set().replace("%s", String.format(Locale.ROOT, "%.9g", setPoint)));
  }

  @Override
  public void close() {
    line.close();
  }
}
