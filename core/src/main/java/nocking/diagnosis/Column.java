package nocking.diagnosis;

import java.util.HashMap;
import java.util.Map;
import nocking.fault.Fault;
import nocking.fault.FaultyPath;
import nocking.fault.Subject;
import nocking.quantity.Span;
import nocking.wiring.Place;

/**
 * What every hypothesis predicts at one input, solved when first asked for and kept.
 *
 * @param x input, channel's unit
 * @param nudge by how much the sensor of a sound channel may be off, standard, channel's unit
 */
record Column(Subject subject, double meter, double x, double nudge, Map<Key, Cell> cells) {

  record Key(int hypothesis, int grade) {}

  /**
   * A prediction.
   *
   * @param value in the place's unit; for the display the volts at the converter
   * @param slope what one standard deviation of the sensor makes of it
   * @param span what it may be when nothing holds it
   */
  record Prediction(double value, double slope, Span span, boolean floats) {}

  Column(Subject subject, double meter, double x, double nudge) {
    this(subject, meter, x, nudge, new HashMap<>());
  }

  Cell cell(int hypothesis, int grade, Fault fault) {
    return cells.computeIfAbsent(new Key(hypothesis, grade), k -> new Cell(fault));
  }

  /** One fault at one degree. */
  final class Cell {
    private final FaultyPath here;
    private final FaultyPath beside;
    private final Map<Place, Prediction> seen = new HashMap<>();

    private Cell(Fault fault) {
      here = FaultyPath.of(subject, fault, x);
      beside = FaultyPath.of(subject, fault, x + nudge);
    }

    Prediction at(Place place) {
      return seen.computeIfAbsent(place, this::solve);
    }

    private Prediction solve(Place place) {
      FaultyPath.Reading a = read(here, place);
      FaultyPath.Reading b = read(beside, place);
      double slope = a.floats() || b.floats() ? 0 : b.value() - a.value();
      return new Prediction(a.value(), Double.isNaN(slope) ? 0 : slope, a.span(), a.floats());
    }

    private FaultyPath.Reading read(FaultyPath path, Place place) {
      return place.equals(Place.DISPLAY) ? path.converter() : path.read(place, meter);
    }
  }
}
