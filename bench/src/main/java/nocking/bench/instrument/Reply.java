package nocking.bench.instrument;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;
import nocking.quantity.Unit;
import nocking.run.Instrument;
import nocking.run.Instrument.Language;

/**
 * The small language in which instruments answer, over any line:
 *
 * <pre>
 *   reply  = (channel | label | time)? number unit? status?
 *   number = sign? digits ("." digits)? exponent?          (IEEE 488.2-1992, 7.7.2: NR1, NR2, NR3)
 * </pre>
 *
 * Either all of it is understood or it is no reading: the first number of a line may be the number
 * of a channel, an hour, or the thousands of a larger one.
 */
final class Reply {
  /** What stands for too much, and for no number (SCPI-1999 volume 1, 7.2.1.4 and 7.2.1.5). */
  private static final double INFINITY = 9.9e37;

  /** What no quantity is, also where a register's number was scaled. */
  static final double TOO_MUCH = 1e36;

  private static final int SHOWN = 60;

  private static final Pattern BEFORE =
      Pattern.compile(
          "(?:(?:CH|CHAN|CHANNEL|INPUT)\\s?\\d{1,3}\\s*[:=,]?\\s+"
              + "|[A-Za-z][A-Za-z_]{0,19}\\d{0,3}\\s*[:=]\\s*"
              + "|(?:\\d{4}-\\d\\d-\\d\\d[T ])?\\d{1,2}:\\d\\d(?::\\d\\d(?:\\.\\d{1,9})?)?Z?[\\s,;]+)",
          Pattern.CASE_INSENSITIVE);

  private static final Pattern NUMBER =
      Pattern.compile("([-+]?)\\s?((?:\\d++(?:\\.\\d*+)?+|\\.\\d++)(?:[eE][-+]?\\d{1,3}+)?+)");

  /** Words that say too much, wherever they stand; dashes on a display say it too. */
  private static final Pattern OVER =
      Pattern.compile(
          "(?i)(?:^|[^A-Za-z])(?:O\\.?L\\.?|OVLD|OVL|OVER|OVERLOAD|OVERRANGE|OVERFLOW|INF|INFINITY|NAN)"
              + "(?:$|[^A-Za-z.])|^(?:[.+\\s]*-){3,}[-+.\\s]*$");

  /** Words behind a number that take nothing from it. */
  private static final Pattern GOOD =
      Pattern.compile("(?i)[\\s,]+(?:OK|STABLE|DC|AC|RMS|AUTO)\\s*$");

  private final Instrument instrument;
  private final String answer;

  private Reply(Instrument instrument, String answer) {
    this.instrument = instrument;
    this.answer = answer;
  }

  /**
   * The number of an answer in the unit that the instrument is said to answer in.
   *
   * @throws InstrumentException for too much, and for what is not understood wholly
   */
  static double number(Instrument instrument, String answer) throws InstrumentException {
    return new Reply(instrument, answer.strip()).number();
  }

  private double number() throws InstrumentException {
    if (OVER.matcher(answer).find()) throw over();
    Matcher before = BEFORE.matcher(answer);
    String rest = before.lookingAt() ? answer.substring(before.end()) : answer;
    Matcher m = NUMBER.matcher(rest);
    if (!m.lookingAt()) throw odd(alone());
    double v = Double.parseDouble(m.group(1) + m.group(2));
    double own = inItsUnit(v, words(rest.substring(m.end())));
    if (!(Math.abs(v) < INFINITY)) throw over();
    return own;
  }

  /** What stands behind the number without the words that take nothing from it. */
  private static String words(String behind) {
    String unit = behind;
    for (Matcher m = GOOD.matcher(unit); m.find(); m = GOOD.matcher(unit)) {
      unit = unit.substring(0, m.start());
    }
    unit = unit.strip();
    // VDC and mVAC are volts.
    return unit.matches("[munkMµ]?[VA](?:DC|AC|dc|ac)")
        ? unit.substring(0, unit.length() - 2)
        : unit;
  }

  private double inItsUnit(double v, String said) throws InstrumentException {
    if (said.isEmpty() || said.equals(instrument.unit())) return v;
    Optional<Unit> own = unit(instrument.unit());
    Unit read = read(said, own).orElseThrow(() -> odd(alone()));
    if (own.isEmpty() || !read.dimension().equals(own.get().dimension())) {
      throw odd(
          instrument.unit().isEmpty() ? "a number alone" : "a number in " + instrument.unit());
    }
    return read.convert(v, own.get());
  }

  /** Thermometers say C and F for degrees. */
  private static Optional<Unit> read(String said, Optional<Unit> own) {
    boolean thermometer = own.isPresent() && own.get().dimension().equals(Unit.CELSIUS.dimension());
    return unit(thermometer && said.matches("[CF]") ? "°" + said : said);
  }

  private static Optional<Unit> unit(String text) {
    if (text.isEmpty() || !text.matches("[A-Za-zµΩ°%‰²³/0-9]{1,12}") || text.matches("\\d.*")) {
      return Optional.empty();
    }
    try {
      return Optional.of(Unit.of(text));
    } catch (QuantityException e) {
      return Optional.empty();
    }
  }

  private String alone() {
    boolean line =
        instrument.language() == Language.LINES || instrument.language() == Language.SERIAL;
    return "a number alone or with its unit"
        + (line && instrument.pattern().isEmpty() ? ", else a pattern that picks it out" : "");
  }

  private InstrumentException over() {
    return new InstrumentException(Kind.OVERRANGE, instrument.name() + " is beyond its range");
  }

  private InstrumentException odd(String expected) {
    return odd(instrument, answer, expected);
  }

  /** What was answered and what was expected. */
  static InstrumentException odd(Instrument instrument, String answer, String expected) {
    return new InstrumentException(
        Kind.ODD_ANSWER,
        "%s answered '%s', expected %s".formatted(instrument.name(), shown(answer), expected));
  }

  /** An answer as it can stand in a sentence. */
  static String shown(String answer) {
    String readable = Sentence.readable(answer);
    return readable.length() > SHOWN ? readable.substring(0, SHOWN) + " …" : readable;
  }
}
