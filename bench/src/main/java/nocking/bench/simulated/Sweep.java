package nocking.bench.simulated;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import nocking.quantity.Span;

/**
 * What a simulated bench gives for one channel from end to end and back, without any wait: for
 * looking at a receiver's table before it is there.
 *
 * @param reference what the reference reads at each place
 * @param volts at the converter there
 */
public record Sweep(List<Double> reference, List<Double> volts) {
  /** Time constants that are waited at each place. */
  private static final double SETTLED = 6;

  public Sweep {
    reference = List.copyOf(reference);
    volts = List.copyOf(volts);
  }

  /**
   * @param places in each direction, 2 or more
   * @return empty where no bench stands for the channel
   */
  public static Optional<Sweep> of(String tag, Span range, int places, long seed) {
    Optional<Scene> scene = Scene.of(tag);
    OptionalInt sensor = scene.map(s -> s.place(tag)).orElse(OptionalInt.empty());
    if (sensor.isEmpty()) return Optional.empty();
    var model = new BenchModel(scene.get(), seed);
    TrueSensor s = scene.get().sensors().get(sensor.getAsInt());
    double wait = SETTLED * (s.lag() + scene.get().stimulus().lag());
    var reference = new ArrayList<Double>();
    var volts = new ArrayList<Double>();
    for (int i = 0; i < 2 * places; i++) {
      int k = i < places ? i : 2 * places - 1 - i;
      model.put(range.at((double) k / (places - 1)));
      model.advance(wait);
      reference.add(model.reference());
      volts.add(model.volts(sensor.getAsInt()));
    }
    return Optional.of(new Sweep(reference, volts));
  }
}
