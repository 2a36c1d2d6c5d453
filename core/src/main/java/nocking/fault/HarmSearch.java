package nocking.fault;

import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import nocking.channel.Surroundings;
import nocking.network.Circuit;
import nocking.prior.FaultKind;
import nocking.quantity.Value;

/**
 * Asks the solved circuit of each fault what it puts on the converter's input, on each resistor and
 * on what a hand can touch, beside what the sound channel puts there.
 *
 * <p>Taken so: an input takes {@value #DIODE} V beyond 0 and its reference, and beyond that what
 * its own diodes are rated for; a resistor what the channel's surroundings say, in RMS where the
 * voltage alternates (IEC 60115-1); a hand 50 V RMS or 120 V direct (IEC 60364-4-41).
 */
final class HarmSearch {
  /** Volts beyond its ends from which on an input's diodes conduct. */
  static final double DIODE = 0.3;

  /** Ohms of a diode that conducts. */
  private static final double CONDUCTS = 1;

  private static final double SAFE_RMS = 50;
  private static final double SAFE_DIRECT = 120;

  /** By how much more than the sound channel's it has to be. */
  private static final double MORE = 1.05;

  /** A clamp holds an input at its very end. */
  private static final double ROUNDING = 1e-9;

  private final Subject subject;
  private final double[] inputs;
  private final Map<String, Double> soundParts = new HashMap<>();
  private final Set<String> live = new HashSet<>();
  private double soundPin;

  /**
   * @param inputs at which the circuit is looked at, in the channel's unit
   */
  HarmSearch(Subject subject, double... inputs) {
    this.subject = subject;
    this.inputs = inputs.clone();
    for (double x : inputs) {
      FaultyPath sound = FaultyPath.of(subject, Fault.NONE, x);
      for (FaultyPath.Stress s : sound.stresses()) {
        soundParts.merge(key(s.part()), over(s), Math::max);
      }
      soundPin = Math.max(soundPin, beyond(sound, sound.pin()));
      for (FaultyPath.Touched t : sound.touched()) {
        if (t.volts() > safe(t)) live.add(t.name());
      }
    }
  }

  /** What a fault does. */
  Harm of(Fault f) {
    if (f.kind() == FaultKind.NONE) return Harm.NONE;
    Harm.Pin pin = null;
    Harm.Part part = null;
    double touch = 0;
    for (double x : inputs) {
      FaultyPath at = FaultyPath.of(subject, f, x);
      pin = worse(pin, pin(at));
      for (FaultyPath.Stress s : at.stresses()) {
        double over = over(s);
        boolean more = over > 1 && over > MORE * soundParts.getOrDefault(key(s.part()), 0.0);
        if (more && (part == null || over > part.over())) part = part(s);
      }
      touch = Math.max(touch, touch(at));
    }
    return new Harm(
        Optional.ofNullable(pin), Optional.ofNullable(part), Optional.of(touch).filter(v -> v > 0));
  }

  private static Harm.Pin worse(Harm.Pin a, Harm.Pin b) {
    if (a == null || b == null) return a == null ? b : a;
    // What is not known counts as the most.
    return Double.compare(b.amperes(), a.amperes()) > 0 ? b : a;
  }

  private Harm.Pin pin(FaultyPath at) {
    double volts = at.pin();
    double beyond = beyond(at, volts);
    // What the sound channel does to the input is said of the design.
    if (beyond == 0 || beyond <= MORE * soundPin) return null;
    double limit = volts < 0 ? -DIODE : top(at);
    double amperes = at.heldAt(limit, CONDUCTS);
    Optional<Double> rated =
        Optional.ofNullable(subject.channel().design().converter().inputCurrent())
            .map(Value::number);
    boolean takes = rated.isPresent() && amperes <= rated.get();
    return takes ? null : new Harm.Pin(volts, amperes, rated);
  }

  private double top(FaultyPath at) {
    double reference = subject.channel().design().converter().reference().number();
    return reference * at.referenceShare() + DIODE;
  }

  /** Volts beyond what the input takes; none where nothing drives it. */
  private double beyond(FaultyPath at, double volts) {
    if (Double.isNaN(volts)) return 0;
    double beyond = Math.max(volts - top(at), -DIODE - volts);
    return beyond > ROUNDING * top(at) ? beyond : 0;
  }

  private static String key(Circuit.Resistor r) {
    return r.owner() + " " + r.name();
  }

  private Surroundings ratings() {
    return subject.channel().design().surroundings();
  }

  private double over(FaultyPath.Stress s) {
    return Math.max(
        s.watts() * s.share() / ratings().partPower().number(),
        s.volts() * s.share() / ratings().partVoltage().number());
  }

  private Harm.Part part(FaultyPath.Stress s) {
    double watts = s.watts() * s.share();
    double volts = s.volts() * s.share();
    String what = FaultCatalogue.partName(subject, s.part().owner(), s.part().name());
    return new Harm.Part(
        s.share() < 1 ? "a part of " + what : what,
        volts,
        watts,
        watts / ratings().partPower().number(),
        volts / ratings().partVoltage().number());
  }

  private double touch(FaultyPath at) {
    return at.touched().stream()
        .filter(t -> !live.contains(t.name()) && t.volts() > safe(t))
        .mapToDouble(FaultyPath.Touched::volts)
        .max()
        .orElse(0);
  }

  private static double safe(FaultyPath.Touched t) {
    return t.peakOverRms() == 1 ? SAFE_DIRECT : SAFE_RMS * t.peakOverRms();
  }

  /** The faults of wires and parts that a single mishap makes, the worst first. */
  static List<Harmful> harmful(Subject subject, List<Fault> faults, double... inputs) {
    var search = new HarmSearch(subject, inputs);
    return faults.stream()
        .map(f -> new Harmful(f, search.of(f)))
        .filter(h -> h.harm().any())
        .sorted(Comparator.comparing(Harmful::harm, Harm.worstFirst()))
        .toList();
  }
}
