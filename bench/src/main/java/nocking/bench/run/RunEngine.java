package nocking.bench.run;

import java.util.List;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Function;
import nocking.bench.instrument.InstrumentException;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.run.Act;
import nocking.run.Doubt;
import nocking.run.RunJournal;
import nocking.run.RunPoint;
import nocking.run.RunProgress;
import nocking.run.RunProgress.Phase;
import nocking.run.RunSnapshot;
import nocking.run.Sweep;
import nocking.run.Unsettled;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Carries a run out on the thread that calls {@link #run}; everything else may be called from any
 * thread. A sweep is in the journal before anyone is told of it. An instrument that fails is tried
 * again with growing patience; the run waits for it and settles anew when it is back. One that is
 * away for longer than a point may take leaves the point, or the run, as the plan has it. The run
 * waits, too, where the journal cannot be written.
 */
public final class RunEngine implements Runnable {
  private static final Logger LOG = LoggerFactory.getLogger(RunEngine.class);

  /** Odd answers in a row that are asked again at once. */
  private static final int AT_ONCE = 3;

  /** Milliseconds of real time between sweeps while something is still to be typed. */
  private static final long HANDS = 50;

  /** Milliseconds of real time after which a disk that refused is first tried again. */
  private static final long DISK = 100;

  private static final long FIRST_WAIT = 1000;
  private static final long LONGEST_WAIT = 30_000;

  /** Told what has happened, on the thread of the run. */
  public interface Listener {
    void changed(RunSnapshot now);
  }

  private record Wish(Act.Kind kind, String why) {}

  private final RunProgress progress;
  private final RunJournal journal;
  private final Rig rig;
  private final BenchClock clock;
  private final Listener listener;
  private final Queue<Wish> wishes = new ConcurrentLinkedQueue<>();
  private volatile boolean broken;
  private int broughtTo = -1;
  private int failures;
  private long lost;
  private String trouble = "";
  private boolean writing = true;
  private String stopWhy = "";
  private final SupplyWatch supply = new SupplyWatch();
  private boolean besideSilent;
  private Function<RunProgress, String> closing = p -> "";
  private Function<Doubt, String> explaining = d -> "";
  private Function<RunProgress, String> forbidding = p -> "";
  private volatile Unattended unattended;
  private String doubted = "";

  /** What becomes of a point that something speaks against where nobody is there to be asked. */
  public enum Unattended {
    /** The run ends there, and can be gone on with. */
    BREAK_OFF,
    /** It is taken all the same, and marked. */
    TAKE
  }

  /**
   * @param progress where the run stands; it belongs to the engine from now on
   */
  public RunEngine(
      RunProgress progress, RunJournal journal, Rig rig, BenchClock clock, Listener listener) {
    this.progress = progress;
    this.journal = journal;
    this.rig = rig;
    this.clock = clock;
    this.listener = listener;
  }

  /**
   * What is written down beside the end of a run that reaches it, for example the record of a
   * procedure.
   *
   * @param words asked once, on the thread of the run
   */
  public RunEngine closing(Function<RunProgress, String> words) {
    closing = words;
    return this;
  }

  /**
   * What it looks like where something speaks against a reading.
   *
   * @param words asked once for each such point, on the thread of the run; a sentence, or empty
   */
  public RunEngine explaining(Function<Doubt, String> words) {
    explaining = words;
    return this;
  }

  /**
   * What is asked after each point: whether anything that was read forbids to go on.
   *
   * @param words why the run is stopped; empty to go on
   */
  public RunEngine forbidding(Function<RunProgress, String> words) {
    forbidding = words;
    return this;
  }

  /**
   * Nobody is there to say yes to a point that something speaks against.
   *
   * @param then null where somebody is there
   */
  public RunEngine unattended(Unattended then) {
    unattended = then;
    return this;
  }

  /** Whoever was there has gone: what nobody can be asked any more ends it. */
  public void left() {
    if (unattended == null) unattended = Unattended.BREAK_OFF;
    synchronized (wishes) {
      wishes.notifyAll();
    }
  }

  /** Asks for something to be done before the next sweep. */
  public void ask(Act.Kind kind, String why) {
    synchronized (wishes) {
      wishes.add(new Wish(kind, why));
      wishes.notifyAll();
    }
  }

  /** Ends the thread after the sweep under way and leaves the run as one that can go on. */
  public void breakOff() {
    broken = true;
    synchronized (wishes) {
      wishes.notifyAll();
    }
  }

  /** Goes on until the run is over or broken off. */
  @Override
  public void run() {
    try (rig) {
      act(Act.Kind.BEGIN, "");
      while (!broken && !progress.over()) {
        grant();
        if (broken || progress.over()) break;
        long began = clock.now();
        step();
        long left = (long) (1000 * progress.plan().every()) - (clock.now() - began);
        if (left > 0 && !broken && !progress.over()) pause(left);
      }
      if (progress.over()) end();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    tell();
  }

  /** While somebody is waited for, time goes no faster than they do. */
  private void pause(long left) throws InterruptedException {
    boolean waits = progress.waitsForHands() || progress.phase() == Phase.HELD;
    if (!clock.atOnce() || !waits) {
      clock.pause(left);
      return;
    }
    long began = System.nanoTime();
    synchronized (wishes) {
      if (wishes.isEmpty()) wishes.wait(left);
    }
    clock.pause(Math.max(1, (System.nanoTime() - began) / 1_000_000));
  }

  private void end() throws InterruptedException {
    act(progress.phase() == Phase.DONE ? Act.Kind.END : Act.Kind.STOP, lastWords());
  }

  private String lastWords() {
    if (progress.phase() == Phase.DONE) return closing.apply(progress);
    return stopWhy.isEmpty() ? progress.whyNot() : stopWhy;
  }

  private void grant() throws InterruptedException {
    for (Wish w = wishes.poll(); w != null; w = wishes.poll()) {
      if (w.kind == Act.Kind.STOP) {
        // Its line is the last one of the journal.
        stopWhy = w.why;
        progress.take(new Act(clock.now(), Act.Kind.STOP, w.why));
        return;
      }
      act(w.kind, w.why);
      broughtTo = -1;
    }
  }

  private void act(Act.Kind kind, String why) throws InterruptedException {
    var act = new Act(clock.now(), kind, why);
    write(() -> journal.append(act));
    progress.take(act);
    tell();
  }

  private void step() throws InterruptedException {
    if (progress.phase() == Phase.HELD) {
      if (progress.doubt().isPresent()) doubt();
      tell();
      return;
    }
    try {
      int target = progress.next();
      if (broughtTo != target) {
        double to = progress.target().orElseThrow().setPoint();
        if (!Double.isNaN(to)) rig.bringTo(to);
        for (String n : rig.notes()) act(Act.Kind.NOTE, n);
        broughtTo = target;
      }
      double applied = rig.applied();
      // No bench goes faster than the hands it waits for.
      if (Double.isNaN(applied)) Thread.sleep(HANDS);
      List<Double> raw = rig.raw();
      var sweep = new Sweep(clock.now(), target, applied, raw, watchSupply(), watchBeside());
      back();
      Optional<RunPoint> completes = progress.take(sweep);
      write(() -> journal.append(sweep, completes));
      doubt();
      if (completes.isPresent() && !progress.over()) forbid();
      tell();
    } catch (InstrumentException e) {
      failed(e);
    }
  }

  /** An instrument that was lost is back: nothing that was seen before tells what is now. */
  private void back() throws InterruptedException {
    if (failures == 0) return;
    boolean wasLost = failures > AT_ONCE;
    failures = 0;
    trouble = "";
    if (!wasLost) return;
    act(Act.Kind.TROUBLE, "all instruments answer again");
    act(Act.Kind.BEGIN, "");
  }

  /** Where something speaks against what was read, that is written down once, and asked. */
  private void doubt() throws InterruptedException {
    Doubt d = progress.doubt().orElse(null);
    if (d == null) {
      doubted = "";
      return;
    }
    if (!doubted.isEmpty()) {
      // Whoever was asked may have gone.
      if (unattended == Unattended.BREAK_OFF) broken = true;
      return;
    }
    String looks = explaining.apply(d);
    doubted = looks.isEmpty() ? d.says() : d.says() + "; " + looks;
    act(Act.Kind.NOTE, doubted);
    if (unattended == Unattended.TAKE) ask(Act.Kind.TAKE, Act.NOBODY_ASKED);
    if (unattended == Unattended.BREAK_OFF) broken = true;
  }

  private void forbid() {
    String why = forbidding.apply(progress);
    if (why.isEmpty()) return;
    stopWhy = why;
    progress.take(new Act(clock.now(), Act.Kind.STOP, why));
  }

  /** What spoke against a reading when the run was broken off for it; empty for nothing. */
  public String doubted() {
    return doubted;
  }

  /**
   * The supply at every sweep: one that moves parts the points.
   *
   * @return its volts; NaN where nothing reads it
   */
  private double watchSupply() throws InterruptedException {
    double volts = Double.NaN;
    String news;
    try {
      volts = rig.supply();
      news = supply.take(volts);
    } catch (InstrumentException e) {
      // Points are taken without it, too; that nobody looks is to be seen afterwards.
      news = supply.silent(e.getMessage());
    }
    if (!news.isEmpty()) act(Act.Kind.NOTE, news);
    return volts;
  }

  /**
   * The reference beside the first, which has to agree with it; points are taken without it, too,
   * and that it is silent is said once.
   */
  private double watchBeside() throws InterruptedException {
    try {
      double says = rig.beside();
      besideSilent = false;
      return says;
    } catch (InstrumentException e) {
      if (!besideSilent) act(Act.Kind.NOTE, "the second reference is not read: " + e.getMessage());
      besideSilent = true;
      return Double.NaN;
    }
  }

  private void failed(InstrumentException e) throws InterruptedException {
    failures++;
    trouble = e.getMessage();
    // While hands are at work nothing is waited for that could be given up.
    if (failures == 1 || progress.handsAtWork()) lost = clock.now();
    if (clock.now() - lost > 1000 * progress.plan().giveUp()) {
      giveUp(e.getMessage());
      return;
    }
    boolean odd = e.kind() == Kind.ODD_ANSWER && failures <= AT_ONCE;
    // Said once and when it changes its mind, not at every try.
    if (failures == 1 || failures == AT_ONCE + 1) act(Act.Kind.TROUBLE, e.getMessage());
    else tell();
    if (e.breaks()) broughtTo = -1;
    if (odd) return;
    failures = Math.max(failures, AT_ONCE + 1);
    int again = Math.min(failures - AT_ONCE - 1, 5);
    clock.pause(Math.min(FIRST_WAIT << again, LONGEST_WAIT));
  }

  /** An instrument that is lost for good: the point is left, or the run, as the plan has it. */
  private void giveUp(String why) throws InterruptedException {
    lost = clock.now();
    String words = why + ", for longer than a point may take";
    if (progress.plan().then() == Unsettled.STOP) {
      stopWhy = words;
      progress.take(new Act(clock.now(), Act.Kind.STOP, words));
    } else {
      // There is nothing that could be taken of it.
      act(Act.Kind.SKIP, words);
      broughtTo = -1;
    }
  }

  /** Writes, however long the disk refuses; only breaking off ends it. */
  private void write(Runnable line) throws InterruptedException {
    for (long wait = DISK; ; wait = Math.min(2 * wait, LONGEST_WAIT)) {
      try {
        line.run();
        if (!writing) trouble = "";
        writing = true;
        return;
      } catch (RuntimeException e) {
        LOG.error("a line of the run was not written", e);
        writing = false;
        trouble = "Nothing can be written down: " + e.getMessage();
        tell();
        if (broken) throw new InterruptedException("broken off while nothing could be written");
        // A disk is waited for in real time, however fast the bench goes.
        Thread.sleep(wait);
      }
    }
  }

  private void tell() {
    boolean held = progress.doubt().isPresent();
    listener.changed(RunSnapshot.of(progress, trouble, held ? doubted : supply.warning()));
  }
}
