package nocking.app.desk;

import java.io.IOException;
import java.time.Clock;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import nocking.bench.run.BenchClock;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BenchServer;
import nocking.bench.simulated.BenchState;
import nocking.bench.simulated.Fault;
import nocking.bench.simulated.Scene;
import nocking.bench.simulated.SteppedClock;
import nocking.procedure.Deed;
import nocking.run.Instrument;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** A simulated bench beside the window, asked over the same sockets as a real one. */
public final class StandIn implements AutoCloseable {
  private static final Logger LOG = LoggerFactory.getLogger(StandIn.class);

  /** How fast its time goes. */
  public enum Pace {
    REAL("×1", 1),
    TEN("×10", 10),
    SIXTY("×60", 60),
    /** As fast as it can: a wait takes no time. */
    AT_ONCE("at once", 0);

    private final String title;
    private final double speed;

    Pace(String title, double speed) {
      this.title = title;
      this.speed = speed;
    }

    public String title() {
      return title;
    }
  }

  private final BenchModel model;
  private final BenchServer server;
  private final Pace pace;

  private StandIn(BenchModel model, BenchServer server, Pace pace) {
    this.model = model;
    this.server = server;
    this.pace = pace;
  }

  /**
   * @throws IOException when the machine gives no port
   */
  static StandIn of(Scene scene, long seed, Pace pace) throws IOException {
    var model = new BenchModel(scene, seed);
    return new StandIn(model, new BenchServer(model, pace.speed), pace);
  }

  public Scene scene() {
    return model.scene();
  }

  public Pace pace() {
    return pace;
  }

  public Instrument reference() {
    return server.reference();
  }

  /** The meter at a channel's sensor; empty where it does not stand on this bench. */
  public Optional<Instrument> meter(String tag) {
    OptionalInt at = scene().place(tag);
    return at.isPresent() ? Optional.of(server.meter(at.getAsInt())) : Optional.empty();
  }

  /** How it stands; to look at it changes nothing. */
  public BenchState state() {
    return model.state();
  }

  /** Brings what is applied to a set point, as a knob does. */
  public void bringTo(double quantity) {
    model.bringTo(quantity);
  }

  /** Puts a sensor deeper than the reference, in millimetres. */
  public void depth(int sensor, double millimetres) {
    model.depth(sensor, millimetres);
  }

  /** Makes a fault at an instrument: 0 the reference, 1 … the meters. */
  public void fault(int instrument, Fault fault) {
    try {
      server.fault(instrument, fault);
    } catch (IOException e) {
      LOG.warn("a connection was not dropped", e);
    }
  }

  /** Where an instrument answers: 0 the reference, 1 … the meters. */
  public String address(int instrument) {
    return server.address(instrument);
  }

  /** Does what hands would do at a real one. */
  void put(double quantity) {
    model.put(quantity);
  }

  /** Does what the hands do in a step of a procedure. */
  public void doIt(Deed deed) {
    model.doIt(deed);
  }

  /** Names of all instruments that stand here. */
  Set<String> names() {
    return Stream.concat(
            Stream.of(reference()),
            scene().sensors().stream().flatMap(s -> meter(s.tag()).stream()))
        .map(Instrument::name)
        .collect(Collectors.toSet());
  }

  /** What is wrong at a channel's meter. */
  public Fault fault(String tag) {
    OptionalInt at = scene().place(tag);
    return at.isPresent() ? model.fault(at.getAsInt() + 1) : Fault.NONE;
  }

  /** Makes a fault at a channel's meter. */
  public void fault(String tag, Fault fault) {
    scene().place(tag).ifPresent(i -> fault(i + 1, fault));
  }

  /** The clock that goes as its time does. */
  BenchClock clock(Clock wall) throws IOException {
    return pace == Pace.AT_ONCE
        ? new SteppedClock(server.control(), wall.millis())
        : BenchClock.of(wall, pace.speed);
  }

  @Override
  public void close() {
    server.close();
  }
}
