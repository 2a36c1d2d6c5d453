package nocking.finding;

import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.element.Element;
import nocking.element.Signal;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.Sentence;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.stage.PullUp;
import nocking.stage.Stage;
import nocking.table.TableSpec;
import nocking.view.ChannelView;

/** The path cannot be worked out, for example because both sensor points have the same input. */
final class PathProblem implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    return e.design().problem().stream()
        .map(
            problem -> {
              Finding f =
                  bySensor(e.channel())
                      ? Finding.of(
                          "path-problem",
                          Severity.ADVICE,
                          WorkStep.CONDITION,
                          "The receiver's %s is not known".formatted(maker(e.channel())),
                          "Its table in %s stands by the sensor alone; volts, counts and faults need the %s."
                              .formatted(
                                  e.channel().receiver().table().axis().title(),
                                  maker(e.channel())))
                      : Finding.of(
                          "path-problem",
                          Severity.STOP,
                          WorkStep.DEFINE,
                          "The path cannot be worked out",
                          Sentence.capital(problem) + ".");
              return fix(e.channel()).map(f::with).orElse(f);
            });
  }

  /** A receiver that wants resistances or currents makes volts of them inside. */
  private static boolean bySensor(Channel c) {
    TableSpec table = c.receiver().table();
    return table != null
        && RawScale.own(c.design().sensor()).filter(table.axis()::equals).isPresent()
        && c.design().stages().isEmpty();
  }

  private static String maker(Channel c) {
    return c.receiver().table().axis() == RawUnit.OHMS ? "pull-up" : "burden";
  }

  /** The stage that turns the sensor's signal into a voltage, or the range that it is known for. */
  private static Optional<Fix> fix(Channel c) {
    Signal signal = c.design().sensor().signal();
    boolean taken =
        !c.design().stages().isEmpty() && c.design().stages().getFirst().accepts().contains(signal)
            || signal == Signal.VOLTAGE && c.design().stages().isEmpty();
    if (!taken && signal != Signal.VOLTAGE) {
      return Stage.kinds().stream()
          .filter(s -> s.accepts().contains(signal) && s.gives(signal) == Signal.VOLTAGE)
          .findFirst()
          .map(
              s ->
                  new Fix(
                      "Insert a " + s.title().toLowerCase(Locale.ROOT),
                      ch -> ch.design(d -> d.insertStage(0, suited(s, ch)))));
    }
    return c.design()
        .sensor()
        .known(c.unit())
        .filter(
            k ->
                !k.contains(c.definition().low().number())
                    || !k.contains(c.definition().high().number()))
        .flatMap(k -> inside(c, k));
  }

  /** A pull-up goes to the converter's own reference, so that the supply cancels. */
  private static Stage suited(Stage s, Channel c) {
    return s instanceof PullUp p
        ? Element.with(p, p.field("Vs"), c.design().converter().reference())
        : s;
  }

  private static Optional<Fix> inside(Channel c, Span known) {
    double low = Math.max(known.low(), c.definition().low().number());
    double high = Math.min(known.high(), c.definition().high().number());
    if (!(low < high)) return Optional.empty();
    return Optional.of(
        new Fix(
            "Stay inside %s … %s".formatted(Numbers.trimmed(low, 5), Numbers.trimmed(high, 5)),
            ch -> ch.define(d -> d.withRange(Value.of(low), Value.of(high)))));
  }
}
