package nocking.diagnosis;

import java.util.HashMap;
import java.util.Map;
import nocking.fault.Fault;
import nocking.fault.Faults;
import nocking.fault.FaultyPath;
import nocking.fault.Subject;
import nocking.prior.FaultKind;
import nocking.quantity.Span;
import nocking.wiring.Place;

/**
 * What every hypothesis predicts at one input, solved when first asked for and kept.
 *
 * @param x input, channel's unit
 * @param nudge by how much the sensor of a sound channel may be off, standard, channel's unit
 * @param rail by how much a sound supply may be off, standard, as a fraction; 0 without one
 */
record Column(
    Subject subject,
    double meter,
    double x,
    double nudge,
    double rail,
    Map<Key, Cell> cells,
    Map<CurveKey, Grid.Curve> curves) {

  record Key(int hypothesis, double severity) {}

  private static final Key SOUND = new Key(-1, Double.NaN);

  private record CurveKey(int hypothesis, int size, Place place) {}

  /**
   * A prediction.
   *
   * @param value in the place's unit; for the display the volts at the converter
   * @param slope what one standard deviation of the sensor makes of it
   * @param railSlope what one standard deviation of the supply makes of it
   * @param span what it may be when nothing holds it
   */
  record Prediction(double value, double slope, double railSlope, Span span, boolean floats) {}

  Column(Subject subject, double meter, double x, double nudge, double rail) {
    this(subject, meter, x, nudge, rail, new HashMap<>(), new HashMap<>());
  }

  Cell cell(int hypothesis, Fault fault) {
    // What is wrong with the receiver's numbers leaves every voltage as it is.
    if (fault.kind().family() == FaultKind.Family.NUMBERS) {
      return cells.computeIfAbsent(SOUND, k -> new Cell(Faults.of(Fault.NONE)));
    }
    return cells.computeIfAbsent(
        new Key(hypothesis, fault.severity()), k -> new Cell(Faults.of(fault)));
  }

  /** Two faults at once, which are not kept. */
  Cell pair(Faults faults) {
    return new Cell(faults);
  }

  /** A place over all degrees of a hypothesis. */
  Grid.Curve curve(int hypothesis, Grid grid, Place place) {
    return curves.computeIfAbsent(
        new CurveKey(hypothesis, grid.size(), place),
        k -> grid.curve(f -> cell(hypothesis, f).at(place)));
  }

  /** What is wrong, at its degree. */
  final class Cell {
    private final FaultyPath here;
    private final FaultyPath beside;
    private final FaultyPath fedMore;
    private final Map<Place, Prediction> seen = new HashMap<>();

    private Cell(Faults faults) {
      here = FaultyPath.of(subject, faults, x);
      beside = FaultyPath.of(subject, faults, x + nudge);
      // A fault of the supply says itself how far it is off.
      boolean own = faults.supply(1) != 1;
      fedMore = rail == 0 || own ? here : FaultyPath.onRail(subject, faults, x, 1 + rail);
    }

    /** What a place shows, without what sensor and supply may make of it. */
    FaultyPath.Reading reading(Place place) {
      return read(here, place);
    }

    Prediction at(Place place) {
      return seen.computeIfAbsent(place, this::solve);
    }

    private Prediction solve(Place place) {
      FaultyPath.Reading a = read(here, place);
      return new Prediction(
          a.value(), change(a, beside, place), change(a, fedMore, place), a.span(), a.floats());
    }

    private double change(FaultyPath.Reading from, FaultyPath path, Place place) {
      if (path == here) return 0;
      FaultyPath.Reading to = read(path, place);
      double change = to.value() - from.value();
      return from.floats() || to.floats() || Double.isNaN(change) ? 0 : change;
    }

    private FaultyPath.Reading read(FaultyPath path, Place place) {
      return place.equals(Place.DISPLAY) ? path.converter() : path.read(place, meter);
    }
  }
}
