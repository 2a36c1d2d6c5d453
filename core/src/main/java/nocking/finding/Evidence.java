package nocking.finding;

import java.util.List;
import java.util.Optional;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.check.CheckRow;
import nocking.element.Element;
import nocking.fault.FaultMatrix;
import nocking.fault.PairExpectation;
import nocking.fault.PinExpectation;
import nocking.fault.Subject;
import nocking.fit.Curve;
import nocking.fit.Fit;
import nocking.misfit.PointsMisfit;
import nocking.path.PathCircuit;
import nocking.path.SensorCurve;
import nocking.path.SignalPath;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.tolerance.BudgetPoint;

/** What the rules may look at: the document and all that is known from it. */
public interface Evidence {
  Channel channel();

  /** The compiled path; empty while the sensor is undefined or the path makes no sense. */
  Optional<SignalPath> path();

  /** The sensor by itself; empty while it is undefined or its numbers make no sense. */
  Optional<SensorCurve> sensorCurve();

  /** Why there is no path; empty while nothing is wrong. */
  Optional<String> pathProblem();

  /** Volts at the converter for a reference point's mean reading. */
  double volts(ReferencePoint point);

  /** How the points depart from the design and what would explain it; empty where they agree. */
  Optional<PointsMisfit> misfit();

  /** Judged models, the design equation among them. */
  List<Fit> fits();

  /** The curve that the channel goes by. */
  Optional<Curve> curve();

  /** The adopted model fitted anew to the points as they are now. */
  Optional<Fit> refitted();

  List<CheckRow> checkRows();

  /** Sensor, stages and converter in their order; only while there is a sensor. */
  List<Element> elements();

  /** Sensor cards of the book; empty where no book is at hand. */
  List<SensorCard> cards();

  /** What the resistors of the path take at an input; empty without a path. */
  List<PathCircuit.Stress> stresses(double x);

  /** Error budget at both ends and the middle of the working range; empty without a path. */
  List<BudgetPoint> budget();

  /** The channel with its circuit and wires; empty without a path. */
  Optional<Subject> subject();

  /** What every pin must read after power. */
  List<PinExpectation> pins();

  /** What the meter must show between the pins before power. */
  List<PairExpectation> pairs();

  /** The sound channel and its broken wires; empty without a path. */
  Optional<FaultMatrix> brokenWires();

  /** A channel that has adopted a model, with its constants from the present points. */
  Channel adopting(String model);

  /** Decimals that one count of the converter justifies. */
  int decimals();

  /** A value of the quantity with its unit. */
  default String amount(double value) {
    return (Numbers.fixed(value, decimals()) + " " + channel().definition().unit()).strip();
  }

  /** A small error of the quantity: two significant digits. */
  default String error(double value) {
    return (Numbers.significant(value, 2) + " " + channel().definition().unit()).strip();
  }

  default Optional<Fit> fit(String model) {
    return fits().stream().filter(f -> f.model().equals(model)).findFirst();
  }
}
