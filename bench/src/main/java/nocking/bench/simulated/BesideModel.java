package nocking.bench.simulated;

import nocking.bench.instrument.InstrumentException;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.bench.instrument.Reference;
import nocking.bench.run.BenchClock;
import nocking.bench.run.Rig;
import nocking.quantity.Unit;
import nocking.run.Instrument;

/**
 * Instruments that look into a bench model in the same process, without sockets: for a book that is
 * made from runs, thousands of readings in a moment. Their time is the model's.
 */
public final class BesideModel implements Rig.Reach, BenchClock {
  private static final String PLACE = "bench:";

  private final BenchModel model;
  private final long start;

  /**
   * @param start milliseconds since 1970 at which the model began
   */
  public BesideModel(BenchModel model, long start) {
    this.model = model;
    this.start = start;
  }

  /** The reference, as it would stand in a book. */
  public Instrument reference() {
    return model.scene().reference(PLACE + 0);
  }

  /** The meter of a sensor, as it would stand in a book. */
  public Instrument meter(int sensor) {
    return model.scene().meter(sensor, PLACE + (sensor + 1));
  }

  @Override
  public Reference open(Instrument i) throws InstrumentException {
    int index = index(i);
    return new Reference() {
      @Override
      public String identity() {
        return "";
      }

      @Override
      public double read() {
        if (index == 0) return model.reference();
        boolean own = i.reads(Unit.OHM) || i.reads(Unit.AMPERE);
        return own ? model.own(index - 1) : model.volts(index - 1);
      }

      @Override
      public void bringTo(double setPoint) {
        model.bringTo(setPoint);
      }

      @Override
      public void close() {}
    };
  }

  /** 0 for the reference, the number of a sensor for its meter. */
  private int index(Instrument i) throws InstrumentException {
    int sensors = model.scene().sensors().size();
    for (int k = 0; k <= sensors; k++) if (i.address().equals(PLACE + k)) return k;
    throw new InstrumentException(
        Kind.NO_ANSWER, "%s is not on this bench: %s".formatted(i.name(), i.address()));
  }

  @Override
  public long now() {
    return start + Math.round(1000 * model.seconds());
  }

  @Override
  public boolean atOnce() {
    return true;
  }

  @Override
  public void pause(long milliseconds) {
    model.advance(milliseconds * 1e-3);
  }
}
