package nocking.bench.simulated;

/** Where a sensor with a teach wire stands. */
final class Taught {
  private final Fixture.TeachWire wire;
  private double low;
  private double high;
  private boolean lowTaught;
  private boolean highTaught;
  private double held = Double.NaN;
  private boolean took;
  private double since = Double.NaN;

  Taught(Fixture.TeachWire wire) {
    this.wire = wire;
    factory();
  }

  private void factory() {
    low = wire.low();
    high = wire.high();
    lowTaught = false;
    highTaught = false;
    since = Double.NaN;
  }

  void ground(boolean on) {
    if (on == !Double.isNaN(held)) return;
    held = on ? 0 : Double.NaN;
    took = false;
  }

  boolean grounded() {
    return !Double.isNaN(held);
  }

  /** Lets time go by with the sensor at a place. */
  void step(double dt, double place) {
    if (!Double.isNaN(since)) since += dt;
    if (since > wire.timeOut()) factory();
    if (Double.isNaN(held)) return;
    held += dt;
    if (held >= wire.reset()) {
      factory();
    } else if (held >= wire.hold() && !took) {
      took = true;
      learn(place);
    }
  }

  /** Takes a place for the end that is nearer; one too far inside is not taken. */
  private void learn(double place) {
    double width = wire.high() - wire.low();
    double inside = (place - wire.low()) / width;
    if (inside <= 0.5 && inside <= wire.most() + 1e-3) {
      low = place;
      lowTaught = true;
    } else if (inside > 0.5 && 1 - inside <= wire.most() + 1e-3) {
      high = place;
      highTaught = true;
    } else {
      return;
    }
    since = lowTaught && highTaught ? Double.NaN : 0;
    if (lowTaught && highTaught) {
      lowTaught = false;
      highTaught = false;
    }
  }

  /** Volts at the meter with the sensor at a place. */
  double volts(double place) {
    if (!Double.isNaN(since)) return wire.meanwhile();
    double share = Math.clamp((place - low) / (high - low), 0, 1);
    return wire.lowVolts() + share * (wire.highVolts() - wire.lowVolts());
  }
}
