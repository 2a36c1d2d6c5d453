package nocking.app.desk;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.application.Platform;
import nocking.analysis.LiveReading;
import nocking.bench.instrument.Connection;
import nocking.bench.instrument.InstrumentException;
import nocking.bench.instrument.Reference;
import nocking.channel.Channel;
import nocking.points.RawUnit;
import nocking.quantity.Unit;
import nocking.run.Instrument;
import nocking.run.RunChannel;
import nocking.run.RunPlan;
import nocking.run.RunSnapshot;

/**
 * What the meter at the selected channel reads: now and then while it is switched on, or once when
 * it is asked for. A run that reads the channel is listened to; else the meter is asked on a thread
 * of its own. All methods belong to the interface thread.
 */
public final class LiveMeter {
  private static final long EVERY = 400;
  private static final long AFTER_TROUBLE = 2000;

  /** Nanoseconds between what a run tells. */
  private static final long SOME = 250_000_000;

  /** What a meter may read, that first which says most of the channel. */
  private static final List<Unit> READ = List.of(Unit.VOLT, Unit.OHM, Unit.AMPERE);

  private final Desk desk;
  private final List<Runnable> listeners = new ArrayList<>();
  private Poll poll;
  private String channel = "";
  private double heard = Double.NaN;
  private String trouble = "";
  private boolean following;
  private long told;

  /** Asks one meter until it is told to end. */
  private final class Poll implements Runnable {
    final Instrument meter;
    final Thread thread;
    volatile boolean ended;

    Poll(Instrument meter) {
      this.meter = meter;
      thread = Thread.ofPlatform().daemon().name("live").unstarted(this);
    }

    @Override
    public void run() {
      Reference open = null;
      while (!ended) {
        double read = Double.NaN;
        String why = "";
        try {
          if (open == null) open = Connection.open(meter);
          read = in(unit(meter), meter, open.read());
        } catch (InstrumentException e) {
          why = e.getMessage();
          if (e.breaks() && open != null) {
            open.close();
            open = null;
          }
        }
        double v = read;
        String w = why;
        Platform.runLater(() -> heard(this, v, w));
        try {
          Thread.sleep(why.isEmpty() ? EVERY : AFTER_TROUBLE);
        } catch (InterruptedException e) {
          break;
        }
      }
      if (open != null) open.close();
    }
  }

  LiveMeter(Desk desk) {
    this.desk = desk;
  }

  /** Has something called when there is another reading. */
  public void listen(Runnable listener) {
    listeners.add(listener);
  }

  /** Ohms and milliamperes are shown as such, the rest in volts. */
  private static RawUnit unit(Instrument meter) {
    return meter.unit().isEmpty() ? RawUnit.VOLTS : RawUnit.of(Unit.of(meter.unit()));
  }

  private static double in(RawUnit unit, Instrument meter, double v) {
    double corrected = meter.truth(v);
    return meter.unit().isEmpty()
        ? corrected
        : Unit.of(meter.unit()).convert(corrected, unit.unit());
  }

  /** The meter that is at the selected channel; empty where none is. */
  public Optional<Instrument> meter() {
    return desk.channel()
        .flatMap(
            c ->
                READ.stream()
                    .flatMap(u -> standing(c, u).stream())
                    .findFirst()
                    .or(() -> desk.runs().standIn().flatMap(b -> b.meter(c.tag()))));
  }

  private Optional<Instrument> standing(Channel c, Unit read) {
    return desk.book().instruments().stream()
        .filter(i -> i.standsAt(c.tag()) && !i.atSupply() && i.reads(read))
        .findFirst();
  }

  /** True while readings come by themselves. */
  public boolean on() {
    return following;
  }

  /** Switches the readings on or off. */
  public void toggle() {
    if (following) {
      off();
      return;
    }
    if (desk.channel().isEmpty()) return;
    if (meter().isEmpty() && !atWork()) {
      desk.say(noMeter(), true);
      return;
    }
    following = true;
    follow();
  }

  private String noMeter() {
    return "No meter measures %s: name the channel of one under Collect, instruments, or set up the bench that stands in."
        .formatted(desk.channel().orElseThrow().tag());
  }

  /** True while a run reads the selected channel. */
  private boolean atWork() {
    BenchRuns runs = desk.runs();
    return runs.running() && desk.channel().map(c -> runs.reads(c.id())).orElse(false);
  }

  /** True while a run needs an instrument for itself: most take one connection only. */
  private boolean inRun(Instrument meter) {
    Optional<RunPlan> plan =
        desk.runs().running() ? desk.runs().now().map(RunSnapshot::plan) : Optional.empty();
    return atWork()
        || plan.map(
                p ->
                    p.reference().address().equals(meter.address())
                        || p.channels().stream()
                            .anyMatch(c -> c.meter().address().equals(meter.address())))
            .orElse(false);
  }

  private void off() {
    following = false;
    end();
    heard = Double.NaN;
    trouble = "";
    tell();
  }

  private void end() {
    if (poll != null) {
      poll.ended = true;
      poll.thread.interrupt();
    }
    poll = null;
  }

  /** Asks the meter of the channel that is selected now; a run that reads it is listened to. */
  void follow() {
    if (!following) return;
    boolean runs = atWork();
    if (runs && System.nanoTime() - told > SOME) tell();
    Optional<Instrument> meter = meter().filter(m -> !inRun(m));
    String id = desk.channel().map(Channel::id).orElse("");
    boolean same =
        id.equals(channel)
            && (poll == null
                ? meter.isEmpty()
                : meter.isPresent() && poll.meter.equals(meter.get()));
    if (same) return;
    end();
    channel = id;
    heard = Double.NaN;
    trouble = "";
    if (meter.isPresent()) {
      poll = new Poll(meter.get());
      poll.thread.start();
    }
    tell();
  }

  private void heard(Poll by, double v, String why) {
    if (by != poll) return;
    heard = v;
    trouble = why;
    tell();
  }

  private void tell() {
    told = System.nanoTime();
    listeners.forEach(Runnable::run);
  }

  /** The newest reading of a run that reads the selected channel. */
  private Optional<LiveReading> running() {
    Optional<RunSnapshot> now = desk.runs().running() ? desk.runs().now() : Optional.empty();
    return desk.channel()
        .flatMap(
            c ->
                now.flatMap(
                    n -> {
                      int at = BenchRuns.place(n.plan(), c.id());
                      boolean has = at >= 0 && n.last().isPresent();
                      return has
                          ? Optional.of(
                              reading(n.plan().channels().get(at), n.last().get().raw().get(at)))
                          : Optional.empty();
                    }));
  }

  /** What is read now; empty while it is switched off or nothing was read yet. */
  public Optional<LiveReading> now() {
    if (!following || desk.channel().isEmpty()) return Optional.empty();
    return running()
        .or(() -> meter().map(m -> reading(m, heard)))
        .filter(r -> !Double.isNaN(r.raw()));
  }

  private LiveReading reading(Instrument meter, double v) {
    return LiveReading.of(desk.analysis(), meter.stands(), unit(meter), v, applied());
  }

  private LiveReading reading(RunChannel c, double v) {
    boolean counts = c.raw() == RawUnit.COUNTS;
    double raw = counts ? desk.channel().orElseThrow().design().converter().volts(v) : v;
    RawUnit unit = counts ? RawUnit.VOLTS : c.raw();
    return LiveReading.of(desk.analysis(), c.meter().stands(), unit, raw, applied());
  }

  /**
   * What is applied to the channel, in its unit, by the reference of a run that reads it; NaN where
   * nobody says. Where the probe of the screen stands is nothing that is applied.
   */
  private double applied() {
    if (!atWork()) return Double.NaN;
    RunSnapshot now = desk.runs().now().orElseThrow();
    Unit own = desk.channel().orElseThrow().unit();
    Unit of = Unit.of(now.plan().unit());
    boolean same = of.dimension().equals(own.dimension());
    return same ? now.last().map(s -> of.convert(s.applied(), own)).orElse(Double.NaN) : Double.NaN;
  }

  /** What does not work; empty when all does. */
  public String trouble() {
    return following ? trouble : "";
  }

  /** Reads once and hands it over; says so where it cannot be read. */
  public void take(Consumer<LiveReading> taker) {
    Optional<LiveReading> now = running().or(this::now);
    if (now.isPresent()) {
      taker.accept(now.get());
      return;
    }
    Optional<Instrument> meter = meter();
    if (meter.isEmpty()) {
      desk.say(noMeter(), true);
      return;
    }
    if (inRun(meter.get())) {
      desk.say("The meter is at work in a run.", true);
      return;
    }
    String id = desk.channel().orElseThrow().id();
    Background.run(
        () -> once(meter.get()),
        o -> {
          if (!desk.channel().map(c -> c.id().equals(id)).orElse(false)) return;
          if (o.why.isEmpty()) taker.accept(reading(meter.get(), o.raw));
          else desk.say(o.why, true);
        });
  }

  private record Once(double raw, String why) {}

  private static Once once(Instrument meter) {
    try (Reference r = Connection.open(meter)) {
      return new Once(in(unit(meter), meter, r.read()), "");
    } catch (InstrumentException e) {
      return new Once(Double.NaN, e.getMessage() + ".");
    }
  }

  /** Another book comes. */
  void forget() {
    following = false;
    end();
    heard = Double.NaN;
  }
}
