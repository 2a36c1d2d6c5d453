package nocking.bench.run;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import nocking.bench.instrument.Connection;
import nocking.bench.instrument.HandMeter;
import nocking.bench.instrument.HandReference;
import nocking.bench.instrument.InstrumentException;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.bench.instrument.Reference;
import nocking.quantity.Unit;
import nocking.run.Instrument;
import nocking.run.RunChannel;
import nocking.run.RunPlan;

/**
 * The instruments of a run, connected when they are first asked. A connection that failed is let go
 * of, so that no late answer is taken for a new one.
 */
public final class Rig implements AutoCloseable {
  /** How an instrument is reached. */
  public interface Reach {
    Reference open(Instrument instrument) throws InstrumentException;
  }

  /** Stands for what reads the supply. */
  private static final int SUPPLY = -1;

  /** Stands for the reference beside the first. */
  private static final int BESIDE = -2;

  private final RunPlan plan;
  private final Reach reach;
  private final Map<Integer, Reference> open = new HashMap<>();
  private final Map<Integer, String> addresses = new HashMap<>();
  private final Set<Integer> late = new HashSet<>();
  private final HandReference hand = new HandReference();
  private final Map<Integer, HandMeter> typed = new HashMap<>();

  public Rig(RunPlan plan) {
    this(plan, Connection::open);
  }

  public Rig(RunPlan plan, Reach reach) {
    this.plan = plan;
    this.reach = reach;
    for (int i = 0; i < plan.channels().size(); i++) {
      if (plan.channels().get(i).meter().byHand()) typed.put(i, new HandMeter());
    }
  }

  /** What is typed where the reference is read by eye. */
  public HandReference hand() {
    return hand;
  }

  /** Takes what was read by eye at the meter of a channel, in the unit of the meter. */
  public void type(int channel, double value) {
    typed.get(channel).type(value);
  }

  /** Sends for the reference at another address from now on. */
  public void movedReference(String address) {
    moved(0, address);
  }

  /** Sends for the meter of a channel at another address from now on. */
  public void movedMeter(int channel, String address) {
    moved(channel + 1, address);
  }

  /** Sends for the reference beside the first at another address from now on. */
  public void movedBeside(String address) {
    moved(BESIDE, address);
  }

  /** Sends for what reads the supply at another address from now on. */
  public void movedSupply(String address) {
    moved(SUPPLY, address);
  }

  /** By what it is for, not by its name: two instruments may be called alike. */
  private synchronized void moved(int index, String address) {
    addresses.put(index, address);
  }

  private synchronized Instrument where(int index) {
    String address = addresses.get(index);
    Instrument i = instrument(index);
    return address == null ? i : i.withAddress(address);
  }

  private Instrument instrument(int index) {
    if (index == SUPPLY) return plan.supply();
    if (index == BESIDE) return plan.beside();
    return index == 0 ? plan.reference() : plan.channels().get(index - 1).meter();
  }

  /** 0 is the reference, 1 … the meters of the channels. */
  private Reference at(int index) throws InstrumentException {
    Reference there = open.get(index);
    if (there != null) return there;
    Reference r = reached(index);
    // What was asked in vain may be answered yet.
    if (late.remove(index) && !inStep(r)) {
      r.close();
      r = reached(index);
    }
    open.put(index, r);
    return r;
  }

  private Reference reached(int index) throws InstrumentException {
    Instrument i = where(index);
    if (index == 0 && i.byHand()) return hand;
    return index > 0 && i.byHand() ? typed.get(index - 1) : reach.open(i);
  }

  /**
   * One that did not answer in its time may do it to the next question, and so for ever: asked who
   * it is, it would answer with a number. One that cannot say who it is is believed.
   *
   * @return false where it did not answer that either
   */
  private static boolean inStep(Reference r) throws InstrumentException {
    try {
      r.identity();
      return true;
    } catch (InstrumentException e) {
      if (e.kind() == Kind.NO_ANSWER) return false;
      r.close();
      throw e;
    }
  }

  private interface Asking<T> {
    T ask(Reference r) throws InstrumentException;
  }

  private <T> T ask(int index, Asking<T> question) throws InstrumentException {
    try {
      return question.ask(at(index));
    } catch (InstrumentException e) {
      if (e.breaks()) letGo(index);
      if (e.kind() == Kind.NO_ANSWER && index >= 0) late.add(index);
      throw e;
    }
  }

  private void letGo(int index) {
    Reference r = open.remove(index);
    if (r != null) r.close();
  }

  /**
   * Connects all instruments, without a question to any of them.
   *
   * @throws InstrumentException naming the first that cannot be reached
   */
  public void connect() throws InstrumentException {
    for (int i = 0; i <= plan.channels().size(); i++) at(i);
    if (plan.supply() != null) at(SUPPLY);
    if (plan.beside() != null) at(BESIDE);
  }

  /** What is odd about the instruments and stops nothing, since this was last asked. */
  List<String> notes() {
    return open.values().stream().flatMap(r -> r.notes().stream()).toList();
  }

  /** Brings the reference to a set point, as far as it can be told. */
  public void bringTo(double setPoint) throws InstrumentException {
    // What it is told is what it shows, and what is meant is what is true.
    double own = plan.reference().says(setPoint, plan.unit());
    ask(
        0,
        r -> {
          r.bringTo(own);
          return null;
        });
  }

  /**
   * What is applied by what the certificate makes of it, in the unit of the plan; NaN where the
   * reference is beyond its range, or is read by eye and nothing was typed yet.
   */
  public double applied() throws InstrumentException {
    Instrument r = plan.reference();
    double read = read(0);
    // What is read by eye is typed in the unit of the plan.
    return r.byHand() ? r.countsTyped(read, plan.unit()) : r.counts(read, plan.unit());
  }

  /** A reading of each channel, in its raw unit; NaN where a meter is beyond its range. */
  public List<Double> raw() throws InstrumentException {
    var list = new ArrayList<Double>();
    // What is typed for several channels is one sweep when all of it is there.
    boolean whole = typed.values().stream().allMatch(HandMeter::waits);
    for (int i = 0; i < plan.channels().size(); i++) {
      RunChannel c = plan.channels().get(i);
      if (typed.containsKey(i) && !whole) {
        list.add(Double.NaN);
        continue;
      }
      list.add(c.meter().counts(read(i + 1), c.raw().unit().symbol()));
    }
    return list;
  }

  /** Volts of the supply; NaN where nothing reads it. */
  double supply() throws InstrumentException {
    if (plan.supply() == null) return Double.NaN;
    return plan.supply().counts(read(SUPPLY), Unit.VOLT.symbol());
  }

  /** What the other reference says, in the unit of the plan; NaN where there is none. */
  double beside() throws InstrumentException {
    Instrument b = plan.beside();
    if (b == null) return Double.NaN;
    return b.counts(read(BESIDE), plan.unit());
  }

  private double read(int index) throws InstrumentException {
    Instrument i = instrument(index);
    try {
      double v = ask(index, Reference::read);
      boolean below = i.low() != null && v < i.low().number();
      boolean above = i.high() != null && v > i.high().number();
      return below || above ? Double.NaN : v;
    } catch (InstrumentException e) {
      if (e.kind() == Kind.OVERRANGE) return Double.NaN;
      throw e;
    }
  }

  @Override
  public void close() {
    open.values().forEach(Reference::close);
    open.clear();
  }
}
