package nocking.app.desk;

import java.io.IOException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Stream;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.util.Duration;
import nocking.analysis.Analysis;
import nocking.analysis.Jobs;
import nocking.analysis.RunAdoption;
import nocking.analysis.RunExpectation;
import nocking.analysis.RunSuspicion;
import nocking.bench.run.BenchClock;
import nocking.bench.run.Rig;
import nocking.bench.run.RunEngine;
import nocking.bench.simulated.Scene;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;
import nocking.run.Act;
import nocking.run.Doubt;
import nocking.run.Instrument;
import nocking.run.RunChannel;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.RunProgress;
import nocking.run.RunSnapshot;
import nocking.run.StoredRun;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The run that is under way, those that wait to be gone on with, and the bench that stands in for a
 * real one. All methods belong to the interface thread; the run has a thread of its own, and what
 * it tells comes about twelve times a second, however fast its bench goes.
 */
public final class BenchRuns {
  private static final Logger LOG = LoggerFactory.getLogger(BenchRuns.class);
  private static final long SEED = 20260401;

  /** Milliseconds between what a run tells. */
  private static final double GAP = 80;

  private final Desk desk;
  private final Clock wall = Clock.systemUTC();
  private final List<Runnable> listeners = new ArrayList<>();
  private final RunBeep beep = new RunBeep(Tone::sound);
  private final Map<String, RunPlan> drafts = new HashMap<>();
  private StoredRuns stored = StoredRuns.NONE;
  private Live live;
  private StandIn standIn;
  private PauseTransition later;
  private long told;

  /** A run and its thread. */
  private static final class Live {
    final String id;
    final RunProgress progress;
    final Rig rig;
    final RunTrace trace;
    RunEngine engine;
    Thread thread;
    volatile RunSnapshot now;
    final Optional<Analysis> subject;
    final Function<Doubt, String> words;
    boolean ended;

    Live(
        String id,
        RunProgress progress,
        Optional<Analysis> subject,
        Function<Doubt, String> words) {
      this.subject = subject;
      this.words = words;
      this.id = id;
      this.progress = progress;
      rig = new Rig(progress.plan());
      trace = new RunTrace(progress.plan().channels().size());
      now = RunSnapshot.of(progress, "");
    }
  }

  BenchRuns(Desk desk) {
    this.desk = desk;
  }

  /** Has something called when a run has news. */
  public void listen(Runnable listener) {
    listeners.add(listener);
  }

  /** What calls whoever is not looking. */
  public RunBeep beep() {
    return beep;
  }

  /** At once, or when the eye could follow: a bench that runs faster does not fill the window. */
  private void tellSoon() {
    double since = (System.nanoTime() - told) / 1e6;
    if (since >= GAP) {
      tell();
    } else if (later == null) {
      later = new PauseTransition(Duration.millis(GAP - since));
      later.setOnFinished(
          e -> {
            later = null;
            tell();
          });
      later.play();
    }
  }

  private void tell() {
    told = System.nanoTime();
    now().ifPresent(beep::hear);
    listeners.forEach(Runnable::run);
    desk.live().follow();
  }

  /** The plan that was last worked at for a channel. */
  public RunPlan draft(String channel, Supplier<RunPlan> first) {
    return drafts.computeIfAbsent(channel, c -> first.get());
  }

  /** The plan that was last worked at for a channel; empty before the first. */
  public Optional<RunPlan> draft(String channel) {
    return Optional.ofNullable(drafts.get(channel));
  }

  public void draft(String channel, RunPlan plan) {
    drafts.put(channel, plan);
  }

  /** Where the run under way stands, or where the last one ended; empty before the first. */
  public Optional<RunSnapshot> now() {
    return Optional.ofNullable(live).map(l -> l.now);
  }

  /** Id of the run under way, or of the last one; empty before the first. */
  public String id() {
    return live == null ? "" : live.id;
  }

  /** True while a run is under way. */
  public boolean running() {
    return live != null && !live.ended;
  }

  /** The newest readings of the run. */
  public Optional<RunTrace> trace() {
    return Optional.ofNullable(live).map(l -> l.trace);
  }

  /** True when the run under way, or the last one, reads this channel. */
  public boolean reads(String channel) {
    return live != null && place(live.progress.plan(), channel) >= 0;
  }

  /** Place of a channel in a plan, or −1. */
  public static int place(RunPlan plan, String channel) {
    List<String> ids = plan.channels().stream().map(RunChannel::channel).toList();
    return ids.indexOf(channel);
  }

  /** The run of a channel that waits to be gone on with. */
  public Optional<StoredRun> waiting(String channel) {
    return stored.waiting(channel, running() ? live.id : "");
  }

  /** Runs that are over, of a channel, the newest first. */
  public List<StoredRun> over(String channel) {
    return stored.over(channel);
  }

  /** All runs of a channel, the newest first. */
  public List<StoredRun> all(String channel) {
    return stored.all(channel);
  }

  /** Says of a book that was just opened which of its runs waits to be gone on with. */
  void sayOfOpening() {
    Store store = desk.store();
    Background.run(
        () -> new StoredRuns(store.runs()),
        found -> {
          if (desk.store() != store) return;
          stored = found;
          tell();
          String said = waitingSentence(found.unfinished());
          if (!said.isEmpty() && desk.message().isEmpty()) desk.say(said, false);
        });
  }

  private static String waitingSentence(List<StoredRun> waiting) {
    if (waiting.isEmpty()) return "";
    RunProgress p = waiting.getFirst().progress();
    String more = waiting.size() == 1 ? "" : " And %d more.".formatted(waiting.size() - 1);
    return "%s: a run waits to be gone on with (Collect, run); %d of %d are done.%s"
        .formatted(p.plan().title(), p.next(), p.targets().size(), more);
  }

  /** Looks up what runs the book has. */
  public void look() {
    Store store = desk.store();
    Background.run(
        () -> new StoredRuns(store.runs()),
        found -> {
          if (desk.store() != store) return;
          stored = found;
          tell();
        });
  }

  /** The bench that stands in for a real one; empty while none is set up. */
  public Optional<StandIn> standIn() {
    return Optional.ofNullable(standIn);
  }

  /** Sets a simulated bench up, in the place of the one before; empty while that one is in use. */
  public Optional<StandIn> setUp(Scene scene, StandIn.Pace pace) {
    if (running()) return standIn().filter(b -> b.scene() == scene);
    if (standIn != null && standIn.scene() == scene && standIn.pace() == pace) return standIn();
    takeDown();
    try {
      standIn = StandIn.of(scene, SEED, pace);
    } catch (IOException e) {
      LOG.error("no simulated bench", e);
      desk.say("The simulated bench finds no port on this machine.", true);
    }
    return standIn();
  }

  /** The bench of a channel, set up where none stands or that of another one does. */
  public void standInFor(String tag) {
    boolean there = standIn != null && standIn.meter(tag).isPresent();
    if (!there) Scene.of(tag).ifPresent(s -> setUp(s, StandIn.Pace.TEN));
  }

  private void takeDown() {
    if (standIn != null) standIn.close();
    standIn = null;
  }

  /** The channel of a procedure as it is when it is begun. */
  private Optional<Analysis> subject(RunPlan plan) {
    return plan.procedure() == null
        ? Optional.empty()
        : desk.book().byId(plan.channels().getFirst().channel()).map(desk::analysis);
  }

  /** What a reading looks like that something speaks against; asked on the run's thread. */
  private Function<Doubt, String> words(RunPlan plan) {
    Book read = desk.book();
    return RunSuspicion.of(plan, k -> read.byId(k).map(Analysis::of), read.priorWeights());
  }

  /** Begins a run. */
  public void begin(RunPlan wanted) {
    try {
      wanted.requireUnits();
      Jobs.requireReceiver(wanted);
      RunAdoption.requireOneQuantity(wanted, desk.book());
    } catch (QuantityException e) {
      desk.say(e.getMessage() + ".", true);
      return;
    }
    String id = Book.newId();
    RunPlan plan = RunExpectation.in(wanted, k -> desk.book().byId(k).map(desk::analysis));
    Store store = desk.store();
    start(
        new Live(id, new RunProgress(plan), subject(plan), words(plan)),
        () -> store.begin(id, plan));
  }

  /** Goes on with a run that was broken off, at the instruments of this plan. */
  public void goOn(StoredRun run, RunPlan instruments) {
    Store store = desk.store();
    var l = new Live(run.id(), run.progress(), subject(run.plan()), words(run.plan()));
    l.rig.movedReference(instruments.reference().address());
    if (instruments.beside() != null) l.rig.movedBeside(instruments.beside().address());
    if (instruments.supply() != null) l.rig.movedSupply(instruments.supply().address());
    for (int i = 0; i < run.plan().channels().size(); i++) {
      RunChannel c = run.plan().channels().get(i);
      int at = place(instruments, c.channel());
      if (at >= 0) {
        l.rig.movedMeter(i, instruments.channels().get(at).meter().address());
      }
    }
    start(l, () -> store.journal(run.id(), run.plan()));
  }

  /** Ends a run that waits, without going on with it: what it has becomes points. */
  public void close(StoredRun run) {
    Store store = desk.store();
    var stop = new Act(wall.millis(), Act.Kind.STOP, "not gone on with");
    Background.run(
        () ->
            Outcome.of(
                () -> {
                  store.journal(run.id(), run.plan()).append(stop);
                  return "The run is closed; its points are taken over.";
                }),
        said -> {
          desk.say(said.sentence(), said.failed());
          if (!said.failed()) {
            RunProgress p = run.progress();
            p.take(stop);
            adopt(run.id(), p);
          }
          look();
        });
  }

  /** Takes the points of a run that is over into its channels, as far as they are not there. */
  public void takeOver(StoredRun run) {
    adopt(run.id(), run.progress());
  }

  private void start(Live l, Supplier<RunJournal> journal) {
    if (running()) return;
    BenchClock clock;
    try {
      clock = simulated(l.progress.plan()) ? standIn.clock(wall) : BenchClock.of(wall, 1);
    } catch (IOException e) {
      desk.say("The simulated bench does not answer.", true);
      return;
    }
    live = l;
    var pending = new AtomicBoolean();
    l.thread =
        Thread.ofPlatform()
            .daemon()
            .name("run")
            .unstarted(
                () -> {
                  String problem = carryOut(l, journal, clock, pending);
                  Platform.runLater(() -> ended(l, problem));
                });
    desk.store().whenClosing(() -> breakOff(l));
    l.thread.start();
    tell();
  }

  /** True where any of the instruments stands on the simulated bench: its time is gone by then. */
  private boolean simulated(RunPlan plan) {
    if (standIn == null) return false;
    Stream<Instrument> used =
        Stream.concat(Stream.of(plan.reference()), plan.channels().stream().map(RunChannel::meter));
    Set<String> own = standIn.names();
    return used.map(Instrument::name).anyMatch(own::contains);
  }

  /** On the thread of the run; why it could not even begin, or empty. */
  private String carryOut(
      Live l, Supplier<RunJournal> journal, BenchClock clock, AtomicBoolean pending) {
    try {
      var engine =
          new RunEngine(
              l.progress,
              journal.get(),
              l.rig,
              clock,
              now -> {
                now.last().ifPresent(l.trace::take);
                l.now = now;
                if (pending.compareAndSet(false, true)) {
                  Platform.runLater(
                      () -> {
                        pending.set(false);
                        if (live == l) tellSoon();
                      });
                }
              });
      l.subject.ifPresent(
          a -> engine.closing(p -> Jobs.closing(p, a)).forbidding(p -> Jobs.forbids(p, a)));
      engine.explaining(l.words);
      synchronized (l) {
        l.engine = engine;
      }
      engine.run();
      return "";
    } catch (RuntimeException e) {
      LOG.error("a run ended unexpectedly", e);
      return e.getMessage() == null ? "something unexpected" : e.getMessage();
    } finally {
      close(clock);
    }
  }

  private static void close(BenchClock clock) {
    if (!(clock instanceof AutoCloseable c)) return;
    try {
      c.close();
    } catch (Exception e) {
      LOG.warn("the clock of the bench was not let go of", e);
    }
  }

  private void ended(Live l, String problem) {
    l.ended = true;
    if (!problem.isEmpty()) desk.say("The run has ended: %s.".formatted(problem), true);
    else if (l.progress.over()) adopt(l.id, l.progress);
    look();
    tell();
  }

  /** Takes the points over into the channels that were read. */
  private void adopt(String id, RunProgress progress) {
    RunPlan plan = progress.plan();
    if (plan.procedure() != null) {
      desk.say("%s: its record is kept.".formatted(plan.title()), false);
      return;
    }
    boolean taken =
        desk.editBook(
            "points of run " + plan.title(),
            "",
            book -> {
              Book next = book;
              for (RunChannel c : plan.channels()) {
                Channel k = book.byId(c.channel()).orElse(null);
                if (k == null || k.journal().locked()) continue;
                Channel with = RunAdoption.into(k, id, progress);
                if (with != k) next = next.with(with);
              }
              return next;
            });
    long n = progress.points().stream().filter(p -> !p.readings().getFirst().isEmpty()).count();
    boolean whole =
        plan.channels().stream()
            .map(c -> desk.book().byId(c.channel()))
            .allMatch(c -> c.isPresent() && !c.get().journal().locked());
    String locked = whole ? "" : " What a locked channel was read waits in the run.";
    List<String> elsewhere = RunExpectation.elsewhere(plan);
    String rest =
        elsewhere.isEmpty()
            ? locked
            : " %s: that stays in the run.%s".formatted(String.join("; ", elsewhere), locked);
    if (taken) {
      desk.say(
          "%s: %s %s taken over.%s"
              .formatted(plan.title(), Sentence.count(n, "point"), n == 1 ? "is" : "are", rest),
          false);
    }
  }

  /** Asks the run for something before its next sweep. */
  public void ask(Act.Kind kind, String why) {
    if (!running()) return;
    synchronized (live) {
      if (live.engine != null) live.engine.ask(kind, why);
    }
  }

  /** What was read by eye at the meter of a channel, in the unit of the meter. */
  public void typed(String channel, double value) {
    if (!running()) return;
    live.rig.type(place(live.progress.plan(), channel), value);
  }

  /** What was read at a reference by eye. */
  public void typed(double applied) {
    if (!running()) return;
    live.rig.hand().type(applied);
    // What is poured by hand goes into the tank of the stand-in, too.
    boolean eye = live.progress.plan().reference().byHand();
    if (standIn != null && eye && Double.isFinite(applied)) standIn.put(applied);
  }

  /**
   * The hands have done what the step of a procedure asks for.
   *
   * @param place where the reference is read to be, for one that is read by eye
   */
  public void ready(double place, String why) {
    if (!running()) return;
    // A bench that stands in has no hands of its own; a clamp is loose before it is turned.
    if (standIn != null) live.now.step().ifPresent(s -> standIn.doIt(s.deed()));
    if (live.progress.plan().reference().byHand()) typed(place);
    ask(Act.Kind.READY, why);
  }

  /** Ends the run's thread; it can be gone on with. */
  private static void breakOff(Live l) {
    synchronized (l) {
      if (l.engine != null) l.engine.breakOff();
    }
    try {
      l.thread.interrupt();
      l.thread.join(5000);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  /** Another book comes: what belongs to the former is let go of. */
  void forget() {
    live = null;
    stored = StoredRuns.NONE;
    drafts.clear();
    takeDown();
  }
}
