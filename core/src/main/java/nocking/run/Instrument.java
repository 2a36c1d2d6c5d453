package nocking.run;

import com.fasterxml.jackson.annotation.JsonInclude;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.wiring.Place;

/**
 * A meter or a reference of the bench, as it is kept in the book.
 *
 * @param name as it stands on the shelf; never empty
 * @param language how it is spoken to
 * @param address {@code HOST:PORT}, or a serial device with its rate, {@code /dev/ttyUSB0@115200},
 *     for registers with the unit behind a slash, {@code HOST:502/1}; empty for one that is read by
 *     eye
 * @param ask what is sent for a reading, for example {@code READ?}; empty for a line that comes by
 *     itself; for registers where the number stands, {@code input 0 float}
 * @param set what is sent to bring a reference to a set point, with {@code %s} in its place; empty
 *     where hands do it
 * @param pattern for a line, a regular expression whose first group is the number; empty for the
 *     first number of the line
 * @param unit in which it answers
 * @param low least that it can read, in its unit; null where nothing is known
 * @param high most that it can read, in its unit; null where nothing is known
 * @param accuracy in its unit; null where nothing is known
 * @param due date of its next calibration, {@code 2027-03-01}; empty where nothing is known
 * @param identity what it answered when it was asked who it is; empty before
 * @param channel tag of the channel that it measures; empty where that is not settled
 * @param place key of the place at which it measures ({@link Place#key()}); empty for the signal at
 *     the receiver, for ohms the sensor alone, for a current the loop
 * @param corrections what its certificate says of its readings, in its unit; null for none
 */
public record Instrument(
    String name,
    Language language,
    String address,
    String ask,
    String set,
    String pattern,
    String unit,
    Value low,
    Value high,
    Value accuracy,
    String due,
    String identity,
    String channel,
    String place,
    @JsonInclude(JsonInclude.Include.NON_NULL) Corrections corrections) {

  /** How an instrument is spoken to. */
  public enum Language {
    /** Standard commands over a TCP connection (SCPI-1999, IEEE 488.2). */
    SCPI("SCPI over TCP"),
    /** Standard commands over a serial line. */
    SCPI_SERIAL("SCPI over a serial line"),
    /** A reading a line over a serial line. */
    SERIAL("serial line"),
    /** A reading a line over a TCP connection, as a serial device server gives it. */
    LINES("lines over TCP"),
    /** Registers over a TCP connection (MODBUS Application Protocol V1.1b3). */
    MODBUS("Modbus TCP"),
    /** Registers over a serial line. */
    MODBUS_RTU("Modbus RTU"),
    /** Nothing is sent: someone reads it and types. */
    BY_HAND("typed by hand");

    private final String title;

    Language(String title) {
      this.title = title;
    }

    public String title() {
      return title;
    }
  }

  public Instrument {
    if (name == null || name.isBlank()) throw new QuantityException("an instrument needs a name");
    language = language == null ? Language.BY_HAND : language;
    address = said(address);
    ask = said(ask);
    set = said(set);
    pattern = said(pattern);
    unit = said(unit);
    due = said(due);
    identity = said(identity);
    channel = said(channel);
    place = said(place);
    if (corrections != null && corrections.isEmpty()) corrections = null;
    if (!place.isEmpty()) Place.ofKey(place);
    if (low != null && high != null && !(low.number() < high.number())) {
      throw new QuantityException(
          "the range of %s must rise: read %s … %s".formatted(name, low.typed(), high.typed()));
    }
    if (language != Language.BY_HAND && address.isEmpty()) {
      throw new QuantityException("%s needs an address".formatted(name));
    }
  }

  /** What is true where it shows so much, in its unit. */
  public double truth(double shown) {
    return corrections == null ? shown : corrections.truth(shown);
  }

  /** What it shows where so much is true, in its unit. */
  public double shows(double truth) {
    return corrections == null ? truth : corrections.shown(truth);
  }

  /** What a reading of it counts in another unit, by its certificate. */
  public double counts(double read, String in) {
    return convert(truth(read), unit, in);
  }

  /** What it has to say to count so much. */
  public double says(double counted, String in) {
    return shows(convert(counted, in, unit));
  }

  /** What counts where somebody read so much off it, and said it in another unit. */
  public double countsTyped(double read, String in) {
    return counts(convert(read, in, unit), in);
  }

  /** What somebody has to read off it, and say in another unit, to count so much. */
  public double saysTyped(double counted, String in) {
    return convert(says(counted, in), unit, in);
  }

  /** One that says no unit answers in the one that is asked of it. */
  private static double convert(double v, String from, String to) {
    if (from.isEmpty() || to.isEmpty() || from.equals(to)) return v;
    return Unit.of(from).convert(v, Unit.of(to));
  }

  private static String said(String s) {
    return s == null ? "" : s.strip();
  }

  /** One that is read by eye. */
  public static Instrument byHand(String name, Unit unit) {
    return of(name, Language.BY_HAND, "", "", unit);
  }

  /** One that answers, of which nothing else is known yet. */
  public static Instrument of(
      String name, Language language, String address, String ask, Unit unit) {
    return new Instrument(
        name,
        language,
        address,
        ask,
        "",
        "",
        unit.symbol(),
        null,
        null,
        null,
        "",
        "",
        "",
        "",
        null);
  }

  /** True when it brings about what it is told. */
  public boolean settable() {
    return !set.isEmpty();
  }

  public boolean byHand() {
    return language == Language.BY_HAND;
  }

  /** True when its readings are of the kind of a unit; what it says may be no unit at all. */
  public boolean reads(Unit wanted) {
    try {
      return Unit.of(unit).dimension().equals(wanted.dimension());
    } catch (QuantityException e) {
      return false;
    }
  }

  /** True when it answers, and the book says that it stands at a channel. */
  public boolean standsAt(String tag) {
    return !byHand() && channel.equalsIgnoreCase(tag);
  }

  /** True when it stands at a supply, at either end of the wires or between. */
  public boolean atSupply() {
    return place.startsWith(Place.Kind.SUPPLY_AT_JOINT.key());
  }

  /**
   * Where it measures. Where the book says nothing ohms are of the sensor alone, a current is the
   * loop's, and the rest is the signal at the receiver.
   */
  public Place stands() {
    if (!place.isEmpty()) return Place.ofKey(place);
    if (reads(Unit.OHM)) return Place.of(Place.Kind.OHMS_AT_SENSOR);
    if (reads(Unit.AMPERE)) return Place.of(Place.Kind.LOOP_CURRENT);
    return Place.of(Place.Kind.SIGNAL_AT_RECEIVER);
  }

  /** True when it reads what the receiver reads, as far as the book says where it stands. */
  public boolean atReceiver() {
    return stands().kind() == Place.Kind.SIGNAL_AT_RECEIVER;
  }

  public Instrument withName(String v) {
    return new Instrument(
        v,
        language,
        address,
        ask,
        set,
        pattern,
        unit,
        low,
        high,
        accuracy,
        due,
        identity,
        channel,
        place,
        corrections);
  }

  public Instrument withLanguage(Language v) {
    return new Instrument(
        name,
        v,
        address,
        ask,
        set,
        pattern,
        unit,
        low,
        high,
        accuracy,
        due,
        identity,
        channel,
        place,
        corrections);
  }

  public Instrument withAddress(String v) {
    return new Instrument(
        name,
        language,
        v,
        ask,
        set,
        pattern,
        unit,
        low,
        high,
        accuracy,
        due,
        identity,
        channel,
        place,
        corrections);
  }

  public Instrument withAsk(String v) {
    return new Instrument(
        name,
        language,
        address,
        v,
        set,
        pattern,
        unit,
        low,
        high,
        accuracy,
        due,
        identity,
        channel,
        place,
        corrections);
  }

  public Instrument withSet(String v) {
    return new Instrument(
        name,
        language,
        address,
        ask,
        v,
        pattern,
        unit,
        low,
        high,
        accuracy,
        due,
        identity,
        channel,
        place,
        corrections);
  }

  public Instrument withPattern(String v) {
    return new Instrument(
        name,
        language,
        address,
        ask,
        set,
        v,
        unit,
        low,
        high,
        accuracy,
        due,
        identity,
        channel,
        place,
        corrections);
  }

  public Instrument withUnit(String v) {
    return new Instrument(
        name,
        language,
        address,
        ask,
        set,
        pattern,
        v,
        low,
        high,
        accuracy,
        due,
        identity,
        channel,
        place,
        corrections);
  }

  public Instrument withAccuracy(Value v) {
    return new Instrument(
        name,
        language,
        address,
        ask,
        set,
        pattern,
        unit,
        low,
        high,
        v,
        due,
        identity,
        channel,
        place,
        corrections);
  }

  public Instrument withDue(String v) {
    return new Instrument(
        name,
        language,
        address,
        ask,
        set,
        pattern,
        unit,
        low,
        high,
        accuracy,
        v,
        identity,
        channel,
        place,
        corrections);
  }

  public Instrument withIdentity(String v) {
    return new Instrument(
        name,
        language,
        address,
        ask,
        set,
        pattern,
        unit,
        low,
        high,
        accuracy,
        due,
        v,
        channel,
        place,
        corrections);
  }

  /** With the range that it can read; null for an end that is not known. */
  public Instrument withRange(Value from, Value to) {
    return new Instrument(
        name,
        language,
        address,
        ask,
        set,
        pattern,
        unit,
        from,
        to,
        accuracy,
        due,
        identity,
        channel,
        place,
        corrections);
  }

  public Instrument withChannel(String v) {
    return new Instrument(
        name,
        language,
        address,
        ask,
        set,
        pattern,
        unit,
        low,
        high,
        accuracy,
        due,
        identity,
        v,
        place,
        corrections);
  }

  public Instrument withPlace(String v) {
    return new Instrument(
        name,
        language,
        address,
        ask,
        set,
        pattern,
        unit,
        low,
        high,
        accuracy,
        due,
        identity,
        channel,
        v,
        corrections);
  }

  /** With what its certificate says; null for none. */
  public Instrument withCorrections(Corrections v) {
    return new Instrument(
        name, language, address, ask, set, pattern, unit, low, high, accuracy, due, identity,
        channel, place, v);
  }
}
