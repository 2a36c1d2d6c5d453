package nocking.sensor;

import com.fasterxml.jackson.annotation.JsonTypeName;
import nocking.algebra.Expr;
import nocking.element.Choice;
import nocking.element.Measurand;
import nocking.element.Parameter;
import nocking.element.Signal;
import nocking.element.Symbols;
import nocking.element.Titled;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * Alternating voltage: what one meter calls it against what another does. Peak, RMS and rectified
 * average of a waveform stand in fixed ratios: for a sine peak = √2·RMS and average = 2/π·peak (IEC
 * 60050-103, form factor and peak factor).
 *
 * @param waveform shape that fixes the ratios
 * @param from how the quantity is stated
 * @param to what comes out; the peak is an alternating voltage, the others are taken as its direct
 *     measure
 * @param isolation what stands between the mains and the output
 * @param ratio volts out for one volt in, for a transformer or probe; above 0
 * @param peakFactor peak over RMS of another waveform, at least 1
 * @param formFactor RMS over rectified average of another waveform, at least 1
 * @param highest rated RMS input, channel's unit
 */
@JsonTypeName("ac")
public record AcVoltage(
    @Choice(label = "Waveform") Waveform waveform,
    @Choice(label = "Quantity is") Measure from,
    @Choice(label = "Output is") Measure to,
    @Choice(label = "Between mains and output") Isolation isolation,
    @Parameter(symbol = "n", label = "Output per input", above = 0) Value ratio,
    @Parameter(symbol = "kp", label = "Peak factor, other waveform", least = 1) Value peakFactor,
    @Parameter(symbol = "kf", label = "Form factor, other waveform", least = 1) Value formFactor,
    @Parameter(symbol = "xhi", label = "Rated to", unit = "x", above = 0) Value highest)
    implements Sensor {

  /** Shapes with their peak factor and form factor. */
  public enum Waveform implements Titled {
    SINE("sine", Math.sqrt(2), Math.PI / (2 * Math.sqrt(2))),
    TRIANGLE("triangle", Math.sqrt(3), 2 / Math.sqrt(3)),
    SQUARE("square", 1, 1),
    OTHER("other", Double.NaN, Double.NaN);

    private final String title;
    private final double peakFactor;
    private final double formFactor;

    Waveform(String title, double peakFactor, double formFactor) {
      this.title = title;
      this.peakFactor = peakFactor;
      this.formFactor = formFactor;
    }

    @Override
    public String title() {
      return title;
    }
  }

  /** How an alternating voltage is stated. */
  public enum Measure implements Titled {
    RMS("RMS"),
    PEAK("peak"),
    AVERAGE("rectified average");

    private final String title;

    Measure(String title) {
      this.title = title;
    }

    @Override
    public String title() {
      return title;
    }
  }

  /** Whether the output may be touched. */
  public enum Isolation implements Titled {
    ISOLATED("isolated"),
    NONE("not isolated");

    private final String title;

    Isolation(String title) {
      this.title = title;
    }

    @Override
    public String title() {
      return title;
    }
  }

  static final AcVoltage EXAMPLE = sine(1, 300);

  /** A sine, stated in RMS, whose peak comes out. */
  public static AcVoltage sine(double ratio, double highest) {
    return new AcVoltage(
        Waveform.SINE,
        Measure.RMS,
        Measure.PEAK,
        Isolation.ISOLATED,
        Value.of(ratio),
        Value.of(1.5),
        Value.of(1.2),
        Value.of(highest));
  }

  @Override
  public String model() {
    return "ac";
  }

  @Override
  public String title() {
    return "AC voltage";
  }

  @Override
  public String inHand() {
    return "an AC voltage";
  }

  @Override
  public String alsoCalled() {
    return "mains";
  }

  @Override
  public String summary() {
    return "%s, %s to %s".formatted(waveform.title(), from.title(), to.title());
  }

  @Override
  public Signal signal() {
    return to == Measure.PEAK ? Signal.ALTERNATING : Signal.VOLTAGE;
  }

  @Override
  public double peakOverRms() {
    return waveform == Waveform.OTHER ? peakFactor.number() : waveform.peakFactor;
  }

  /** RMS over rectified average of the waveform. */
  private double rmsOverAverage() {
    return waveform == Waveform.OTHER ? formFactor.number() : waveform.formFactor;
  }

  /** Rectified average over peak of the waveform. */
  public double averageOverPeak() {
    return 1 / (peakOverRms() * rmsOverAverage());
  }

  /** Peak volts for one volt as the quantity is stated. */
  public double peakPerStated() {
    return switch (from) {
      case RMS -> peakOverRms();
      case PEAK -> 1;
      case AVERAGE -> 1 / averageOverPeak();
    };
  }

  /** Volts of a measure for one volt RMS. */
  private Expr perRms(Measure m, Symbols own) {
    boolean other = waveform == Waveform.OTHER;
    return switch (m) {
      case RMS -> Expr.ONE;
      case PEAK -> other ? own.of("kp") : Expr.num(waveform.peakFactor);
      case AVERAGE -> Expr.ONE.over(other ? own.of("kf") : Expr.num(waveform.formFactor));
    };
  }

  @Override
  public Expr output(Measurand x, Symbols own) {
    if (from == to && waveform == Waveform.OTHER && peakFactor.number() < formFactor.number()) {
      throw new QuantityException("a peak factor below the form factor is no waveform");
    }
    Expr volts = x.in(Unit.VOLT);
    Expr stated = ratio.number() == 1 ? volts : own.of("n").times(volts);
    return from == to ? stated : perRms(to, own).over(perRms(from, own)).times(stated);
  }

  @Override
  public Span rated(Unit quantity) {
    return new Span(0, highest.number());
  }
}
