package nocking.prior;

/**
 * What can be wrong with a channel, with how far it can go.
 *
 * <p>A prior weight says how often a kind is met relative to the others; it is a working figure of
 * the bench that the technician may change, not a statistic.
 */
public enum FaultKind {
  NONE("nothing is wrong", Family.NONE, 3),
  SUPPLY_DEAD("supply dead", Family.WIRE, 1.5),
  SUPPLY_OPEN("supply wire open", Family.WIRE, 3),
  /** Graded by what the sensor draws, where its card does not say that. */
  GROUND_OPEN("ground wire open", Family.WIRE, 3, Scale.LOG, 1e-3, 20e-3),
  SIGNAL_OPEN("signal wire open", Family.WIRE, 3),
  SIGNAL_TO_SUPPLY("signal shorted to supply", Family.WIRE, 1.5),
  SIGNAL_TO_GROUND("signal shorted to ground", Family.WIRE, 1.5),
  SWAPPED("supply and ground swapped", Family.WIRE, 1),
  SUPPLY_LOW("supply low", Family.WIRE, 2, Scale.LINEAR, 0.3, 0.96),
  SUPPLY_HIGH("supply high", Family.WIRE, 1.5, Scale.LOG, 1.04, 5),
  GROUND_OFFSET("ground offset", Family.WIRE, 3, Scale.CUBIC, -0.5, 0.5),
  SUPPLY_LEAD("resistance in the supply wire", Family.WIRE, 1, Scale.LOG, 1, 1e4),
  GROUND_LEAD("resistance in the ground wire", Family.WIRE, 1, Scale.LOG, 1, 1e4),
  SIGNAL_LEAD("resistance in the signal wire", Family.WIRE, 1.5, Scale.LOG, 1, 1e6),
  LEAK_TO_GROUND("leak from signal to ground", Family.WIRE, 2, Scale.LOG, 500, 1e7),
  LEAK_TO_SUPPLY("leak from signal to supply", Family.WIRE, 1, Scale.LOG, 500, 1e7),
  INTERMITTENT("contact that comes and goes", Family.WIRE, 1.5),
  PART_OPEN("open", Family.PART, 0.5),
  PART_SHORT("short", Family.PART, 0.3),
  PART_DRIFT("drifted", Family.PART, 0.7, Scale.LOG, 0.2, 5),
  PART_DECADE("of another decade", Family.PART, 0.15),
  DIODE_OPEN("one rectifier diode open", Family.PART, 1),
  CAPACITOR_OPEN("smoothing capacitor open", Family.PART, 1),
  SENSOR_DRIFT("sensor's gain is off", Family.SENSOR, 2, Scale.LINEAR, 0.5, 1.5),
  SENSOR_OFFSET("sensor's zero is off", Family.SENSOR, 2, Scale.CUBIC, -0.3, 0.3),
  OTHER_SENSOR("another sensor is fitted", Family.SENSOR, 1.5),
  MIRRORED("signal mirrored", Family.SENSOR, 1),
  DECIMAL("decimal point slipped", Family.NUMBERS, 0.7),
  SENSOR_PREFIX("sensor's numbers typed with the wrong prefix", Family.NUMBERS, 0.7),
  WRONG_UNIT("number is in another unit", Family.NUMBERS, 0.7),
  GAUGE_ABSOLUTE("gauge taken for absolute", Family.NUMBERS, 2),
  OTHER_CURVE("receiver has another sensor's curve", Family.NUMBERS, 1.5),
  REVERSED("table or end points reversed", Family.NUMBERS, 1.5),
  SWAPPED_SYMBOLS("two values swapped in the formula", Family.NUMBERS, 0.5),
  RMS_PEAK("RMS and peak mixed up", Family.NUMBERS, 2),
  COLD_JUNCTION("cold junction ignored", Family.NUMBERS, 2),
  NOT_ENABLED("the input is not enabled", Family.NUMBERS, 1),
  REFERENCE_OFF("the reference is off", Family.MEASURING, 1, Scale.CUBIC, -0.3, 0.3),
  REFERENCE_SCALE("the reference's scale is off", Family.MEASURING, 1, Scale.LINEAR, 0.6, 1.6),
  REFERENCE_UNIT("the reference is read in another unit", Family.MEASURING, 0.4),
  METER_PREFIX("a meter reading slipped by a prefix", Family.MEASURING, 0.7),
  UNLISTED("something that is not on this list", Family.UNLISTED, 3);

  /** Where a fault is looked for. */
  public enum Family {
    NONE("nothing", ""),
    WIRE(
        "wires",
        "Wires show by comparing both ends: what stands at the sensor must arrive at the receiver,"
            + " and the grounds must agree."),
    PART(
        "parts",
        "A part shows between two test points: the node before it is right and the node behind it"
            + " is not."),
    SENSOR(
        "sensor",
        "A sensor is suspected last: supply and ground right at its own pins, and its output still"
            + " wrong."),
    NUMBERS(
        "numbers in the receiver",
        "Every voltage is right and only the display is wrong: the fault is in the receiver's"
            + " numbers, not on the bench."),
    MEASURING("reference and meter", ""),
    UNLISTED("something else", "");

    private final String title;
    private final String lesson;

    Family(String title, String lesson) {
      this.title = title;
      this.lesson = lesson;
    }

    /** What to remember of these faults; empty where there is nothing general. */
    public String lesson() {
      return lesson;
    }

    public String title() {
      return title;
    }
  }

  /** How severities are spread over their range. */
  enum Scale {
    NONE,
    LINEAR,
    LOG,
    /** About zero, small ones the likelier. */
    CUBIC
  }

  private final String title;
  private final Family family;
  private final double prior;
  private final Scale scale;
  private final double least;
  private final double most;

  FaultKind(String title, Family family, double prior) {
    this(title, family, prior, Scale.NONE, Double.NaN, Double.NaN);
  }

  FaultKind(String title, Family family, double prior, Scale scale, double least, double most) {
    this.title = title;
    this.family = family;
    this.prior = prior;
    this.scale = scale;
    this.least = least;
    this.most = most;
  }

  public String title() {
    return title;
  }

  public Family family() {
    return family;
  }

  /** Weight against the other kinds before anything is measured. */
  public double prior() {
    return prior;
  }

  /** True for what is no single circuit but a way in which single readings come about. */
  public boolean loose() {
    return switch (this) {
      case INTERMITTENT, NOT_ENABLED, METER_PREFIX, UNLISTED -> true;
      default -> false;
    };
  }

  /** True when the fault is in the channel and not in the hands or eyes of who measures. */
  public boolean inChannel() {
    return this != NONE && family != Family.MEASURING && family != Family.UNLISTED;
  }

  /** True when the kind has a severity that is more than there or not there. */
  public boolean graded() {
    return scale != Scale.NONE && this != GROUND_OPEN;
  }

  /** Severity at a fraction 0 … 1 of the way from the least to the most. */
  public double severity(double fraction) {
    return switch (scale) {
      case NONE -> Double.NaN;
      case LINEAR -> least + (most - least) * fraction;
      case LOG -> least * Math.pow(most / least, fraction);
      case CUBIC -> most * Math.pow(2 * fraction - 1, 3);
    };
  }
}
