package nocking.procedure;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.ArrayList;
import java.util.List;
import nocking.check.Verdict;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * The stations of a lever, each from both sides: up, and down again to the first, which is read
 * twice and so confirms that the cycle is closed.
 *
 * @param names of the stations, at 1, 2, 3 …; at least two
 * @param slack volts by which a station may differ between the two directions, above 0
 */
@JsonTypeName("stations")
public record Stations(List<String> names, Value slack) implements Procedure {
  public Stations {
    names = names == null ? List.of() : List.copyOf(names);
    if (names.size() < 2) throw new QuantityException("a lever has at least two stations");
    if (!(Procedure.needed(slack, "the slack that is allowed") > 0)) {
      throw new QuantityException(
          "the slack that is allowed reads %s, expected more than 0 V".formatted(slack.typed()));
    }
  }

  @Override
  public String title() {
    return "positions of a lever";
  }

  @Override
  public List<Step> steps(List<Taken> done) {
    int n = names.size();
    var list = new ArrayList<Step>();
    for (int i = 1; i <= n; i++) {
      list.add(
          Step.at(
              "Throw it to " + names.get(i - 1),
              "From below, until it catches; let go of it before it is read.",
              i));
    }
    for (int i = n - 1; i >= 1; i--) {
      String detail =
          i == 1
              ? "All the way back: the first station again closes the cycle."
              : "From above, until it catches; let go of it before it is read.";
      list.add(Step.at("Throw it back to " + names.get(i - 1), detail, i).fromAbove());
    }
    return list;
  }

  @Override
  public String caution() {
    return "Keep clear of the rod and of what the lever moves; agree on who throws it.";
  }

  /** Volts of a station on the way up, counted from 0; NaN where it was not read. */
  public double up(List<Taken> done, int station) {
    return station < done.size() ? done.get(station).volts() : Double.NaN;
  }

  /** Volts of a station on the way down, counted from 0; NaN where it was not read. */
  public double down(List<Taken> done, int station) {
    int n = names.size();
    // The last station is where it turns: it is read once.
    int step = 2 * (n - 1) - station;
    return station < n - 1 && step < done.size() ? done.get(step).volts() : Double.NaN;
  }

  @Override
  public JobRecord read(List<Taken> done, Known known) {
    var lines = new JobRecord.Lines();
    double worst = 0;
    String worstAt = "";
    for (int i = 0; i < names.size(); i++) {
      double up = up(done, i);
      double down = down(done, i);
      double play = down - up;
      lines.add(
          names.get(i),
          Double.isNaN(down) ? Known.volts(up) : Known.volts(up) + ", " + Known.volts(down),
          Double.isNaN(play) ? "" : "slack " + Known.millivolts(play));
      if (Math.abs(play) > worst) {
        worst = Math.abs(play);
        worstAt = names.get(i);
      }
    }
    boolean whole = done.size() == 2 * names.size() - 1 && done.stream().allMatch(Taken::read);
    if (!whole) return lines.closed(Verdict.OPEN, "The cycle is not closed yet.");
    double closes = down(done, 0) - up(done, 0);
    lines.add("the cycle closes within", Known.millivolts(closes));
    double least = Double.POSITIVE_INFINITY;
    for (int i = 1; i < names.size(); i++) {
      least = Math.min(least, Math.abs(up(done, i) - up(done, i - 1)));
    }
    lines.add("least step between stations", Known.volts(least));
    boolean turns = turns(done);
    if (turns) {
      return lines.closed(
          Verdict.FAIL, "The voltages neither rise nor fall all the way: a station was missed.");
    }
    String beside = beside(done, known);
    if (!beside.isEmpty()) return lines.closed(Verdict.OPEN, beside);
    if (worst > slack.number() * (1 + 1e-9)) {
      return lines.closed(
          Verdict.FAIL,
          "%s has %s mV of slack, more than %s mV: look for play in rod and pins."
              .formatted(
                  worstAt,
                  Numbers.fixed(1000 * worst, 1),
                  Numbers.trimmed(1000 * slack.number(), 4)));
    }
    return lines.closed(
        Verdict.PASS,
        "All stations are within %s mV from both sides.".formatted(Numbers.fixed(1000 * worst, 1)));
  }

  /** A station that reads as the design has another one; empty where all are nearest their own. */
  private String beside(List<Taken> done, Known known) {
    for (int i = 0; i < names.size(); i++) {
      for (double volts : new double[] {up(done, i), down(done, i)}) {
        int nearest = nearest(volts, known);
        if (Double.isNaN(volts) || nearest < 0 || nearest == i) continue;
        return "Not established: %s reads %s, where the design has %s (%s for %s)."
            .formatted(
                names.get(i),
                Known.volts(volts),
                names.get(nearest),
                Known.volts(known.design().applyAsDouble(i + 1)),
                names.get(i));
      }
    }
    return "";
  }

  /** The station whose volts by the design are nearest; −1 where the design does not say. */
  private int nearest(double volts, Known known) {
    int nearest = -1;
    double least = Double.POSITIVE_INFINITY;
    for (int i = 0; i < names.size(); i++) {
      double off = Math.abs(volts - known.design().applyAsDouble(i + 1));
      if (off < least) {
        least = off;
        nearest = i;
      }
    }
    return nearest;
  }

  private boolean turns(List<Taken> done) {
    double first = up(done, 1) - up(done, 0);
    for (int i = 1; i < names.size(); i++) {
      if ((up(done, i) - up(done, i - 1)) * first <= 0) return true;
    }
    return false;
  }
}
