package nocking.finding;

import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.element.Signal;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.view.ChannelView;

/** The converter sees more than its range, or only a small part of it is used. */
final class ConverterRange implements Rule {

  private static final double POOR = 0.5;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    return e.design().path().stream().flatMap(p -> look(e, p));
  }

  private static Stream<Finding> look(ChannelView e, SignalPath path) {
    Span working = e.channel().definition().working();
    Span seen = Span.between(path.at(working.low()).output(), path.at(working.high()).output());
    double reference = path.converter().reference().number();
    if (seen.high() > reference || seen.low() < 0) {
      double bad = seen.high() > reference ? seen.high() : seen.low();
      return Stream.of(
          Finding.of(
              "converter-over",
              Severity.STOP,
              WorkStep.CONDITION,
              "Converter input reaches " + Numbers.engineering(bad, "V", 3),
              "Its range is 0 … %s: the code saturates and the input may be damaged."
                  .formatted(Numbers.engineering(reference, "V", 3))));
    }
    double used = seen.width() / reference;
    if (used >= POOR || asGoodAsItGets(e, path, used)) return Stream.empty();
    return Stream.of(
        Finding.of(
            "converter-use",
            Severity.ADVICE,
            WorkStep.CONDITION,
            "Only %s %% of the converter is used".formatted(Numbers.fixed(100 * used, 0)),
            "The signal spans %s of %s; the resolution is %s, one count."
                .formatted(
                    Numbers.engineering(seen.width(), "V", 3),
                    Numbers.engineering(reference, "V", 3),
                    e.design().error(path.countsWorth(working.middle())))));
  }

  /**
   * A resistance R₁ … R₂ behind one pull-up spans at most (√r − 1)/(√r + 1) of its supply, r =
   * R₁/R₂, with R_p = √(R₁R₂): then only an amplifier would use more.
   */
  private static boolean asGoodAsItGets(ChannelView e, SignalPath path, double used) {
    Channel c = e.channel();
    boolean alone =
        c.design().sensor().signal() == Signal.RESISTANCE && c.design().stages().size() == 1;
    if (!alone || c.design().stages().getFirst().ratiometricSupply().isEmpty()) return false;
    Span working = c.definition().working();
    double a = path.at(working.low()).nodes().getFirst().value();
    double b = path.at(working.high()).nodes().getFirst().value();
    double root = Math.sqrt(Math.max(a, b) / Math.min(a, b));
    double supply = c.design().stages().getFirst().ratiometricSupply().get();
    double best = (root - 1) / (root + 1) * supply / path.converter().reference().number();
    return used > 0.9 * best;
  }
}
