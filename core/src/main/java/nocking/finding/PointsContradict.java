package nocking.finding;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.misfit.Cause;
import nocking.misfit.PointsMisfit;
import nocking.path.SignalPath;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.view.ChannelView;

/**
 * The reference points do not agree with the design: by what, and which single cause would make all
 * of them agree. One is named, and mended, only where it explains everything and no other does
 * nearly as well; else the likeliest stand side by side.
 */
final class PointsContradict implements Rule {
  private static final int SHOWN = 3;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    return e.calibration().misfit().stream().flatMap(m -> finding(e, m).stream());
  }

  private static Optional<Finding> finding(ChannelView e, PointsMisfit m) {
    Optional<Cause> clear = m.clear();
    if (clear.isPresent()) return named(e, m, clear.get());
    if (has(m, Cause.Kind.OFFSET)) return Optional.of(offset(e, m));
    if (has(m, Cause.Kind.GAIN)) return Optional.of(gain(e, m));
    return Optional.of(open(e, m));
  }

  private static boolean has(PointsMisfit m, Cause.Kind kind) {
    return m.causes().stream().anyMatch(c -> c.kind() == kind);
  }

  private static Optional<Finding> named(ChannelView e, PointsMisfit m, Cause c) {
    return switch (c.kind()) {
      // A similar sensor has a rule of its own.
      case CARD -> Optional.empty();
      case OFFSET -> Optional.of(offset(e, m));
      case GAIN -> Optional.of(gain(e, m));
      case READING_SLIP, APPLIED_SLIP -> Optional.of(slip(e, m, c));
      case APPLIED_UNIT ->
          Optional.of(
              mended(
                  e, m, c, "unit-slip", WorkStep.COLLECT, "Applied values look like " + unit(c)));
      case ATMOSPHERE ->
          Optional.of(mended(e, m, c, "gauge-absolute", WorkStep.COLLECT, "Gauge or absolute?"));
      case ORDER, EXCHANGED ->
          Optional.of(
              mended(
                  e,
                  m,
                  c,
                  "points-order",
                  WorkStep.COLLECT,
                  c.kind() == Cause.Kind.ORDER
                      ? "The readings stand in the opposite order"
                      : "Two readings stand at each other's place"));
      case MIRRORED ->
          Optional.of(mended(e, m, c, "mirrored", WorkStep.WIRE, "The signal runs the other way"));
      case RAW_UNIT ->
          Optional.of(
              mended(e, m, c, "raw-unit", WorkStep.COLLECT, "Readings look like " + c.says()));
      case SENSOR_UNIT ->
          Optional.of(
              mended(e, m, c, "sensor-unit", WorkStep.DEFINE, "The points ask for " + c.says()));
      case CONSTANT, SWAPPED_PARTS, OTHER_LOOP, LOAD ->
          Optional.of(
              mended(
                  e, m, c, "wrong-constant", WorkStep.CONDITION, "The points ask for " + c.says()));
    };
  }

  private static String unit(Cause c) {
    return c.says().substring(c.says().lastIndexOf(' ') + 1);
  }

  private static Finding mended(
      ChannelView e, PointsMisfit m, Cause c, String rule, WorkStep step, String headline) {
    String now =
        Double.isNaN(m.worst())
            ? "As it is the design has no value for point %d".formatted(m.worstPoint() + 1)
            : "As it is they miss the design by %s at point %d"
                .formatted(worst(e, m), m.worstPoint() + 1);
    String detail = "%s; so they agree within %s.".formatted(now, e.design().error(c.worst()));
    // A measured curve takes up what the design has wrong, but not what was written down wrong.
    Severity severity = step == WorkStep.COLLECT ? Severity.WARNING : severity(e.channel());
    Finding f = Finding.of(rule, severity, step, headline, detail);
    return c.remedy().map(r -> f.with(new Fix(c.label(), r))).orElse(f);
  }

  private static String worst(ChannelView e, PointsMisfit m) {
    return Double.isNaN(m.worst())
        ? "more than the sensor can give"
        : e.design().error(Math.abs(m.worst()));
  }

  private static Finding slip(ChannelView e, PointsMisfit m, Cause c) {
    int first = c.points()[0];
    ReferencePoint p = e.channel().calibration().points().points().get(first);
    String rows =
        Arrays.stream(c.points())
            .mapToObj(i -> String.valueOf(i + 1))
            .collect(Collectors.joining(", "));
    String factor = c.says().replaceAll(".* its (\\S+) slip", "$1");
    String headline =
        c.points().length == 1
            ? "Point %s looks like a %s slip".formatted(rows, factor)
            : "Points %s look like a %s slip".formatted(rows, factor);
    RawUnit unit = e.channel().calibration().points().raw();
    double expected =
        unit.ofSensor()
            ? e.calibration().scale().orElseThrow().raw(p.applied().number())
            : e.design().path().get().at(p.applied().number()).output();
    double reads = unit.ofSensor() ? p.mean() : e.calibration().volts(p);
    String detail =
        "At %s it reads %s; the design expects %s."
            .formatted(
                e.design().amount(p.applied().number()),
                amount(unit, reads),
                Double.isNaN(expected) ? "nothing" : amount(unit, expected));
    Finding f =
        Finding.of("point-slip", Severity.WARNING, WorkStep.COLLECT, headline, detail).at(first);
    return c.remedy().map(r -> f.with(new Fix(c.label(), r))).orElse(f);
  }

  private static String amount(RawUnit unit, double v) {
    return unit.ofSensor() ? unit.amount(v) : Numbers.engineering(v, "V", 4);
  }

  /** What a measured curve takes up is worth knowing; what the design is gone by is wrong. */
  private static Severity severity(Channel c) {
    return c.calibration().byDesign() ? Severity.WARNING : Severity.ADVICE;
  }

  private static Finding offset(ChannelView e, PointsMisfit m) {
    Cause c =
        m.causes().stream().filter(k -> k.kind() == Cause.Kind.OFFSET).findFirst().orElseThrow();
    SignalPath path = e.design().path().get();
    List<ReferencePoint> points = e.channel().calibration().points().counting();
    double mean =
        points.stream()
            .mapToDouble(p -> path.quantity(e.calibration().volts(p)) - p.applied().number())
            .filter(Double::isFinite)
            .average()
            .orElse(m.worst());
    boolean one = points.size() == 1;
    String headline =
        "The design reads %s %s at %s point"
            .formatted(
                e.design().error(Math.abs(mean)),
                mean > 0 ? "high" : "low",
                one ? "the only" : "every");
    String detail =
        "That is %s %s%s: look for %s.%s"
            .formatted(
                c.says().replace("the same ", "").replace(" everywhere", ""),
                e.channel().calibration().points().raw().ofSensor()
                    ? "at the sensor"
                    : "at the converter",
                one ? "" : " everywhere",
                offsetOf(e.channel().calibration().points().raw()),
                others(m, Cause.Kind.OFFSET));
    return Finding.of("constant-offset", severity(e.channel()), WorkStep.FIT, headline, detail);
  }

  /** What shifts all readings by the same. */
  private static String offsetOf(RawUnit unit) {
    return switch (unit) {
      case VOLTS, COUNTS -> "a ground offset or a zero that is not where the design has it";
      case OHMS -> "the resistance of leads and contacts, or a meter that was not zeroed";
      case MILLIAMPERES -> "a meter's zero, or a leak beside the loop";
    };
  }

  private static Finding gain(ChannelView e, PointsMisfit m) {
    double percent = 100 * (m.gain() - 1);
    String headline =
        (e.channel().calibration().points().raw().ofSensor()
                ? "The sensor gives %s %% %s than the design has"
                : "The points ask for %s %% %s gain than the design has")
            .formatted(Numbers.significant(Math.abs(percent), 2), percent > 0 ? "more" : "less");
    String detail =
        "They miss it by %s. A factor on top would hide what is wrong.%s"
            .formatted(worst(e, m), others(m, Cause.Kind.GAIN));
    return Finding.of("gain-error", severity(e.channel()), WorkStep.FIT, headline, detail);
  }

  private static Finding open(ChannelView e, PointsMisfit m) {
    ReferencePoint p = e.channel().calibration().points().points().get(m.worstPoint());
    String explained =
        m.causes().isEmpty()
            ? " No single slip and no single constant of the design explains all of them."
            : others(m, null);
    String detail =
        "The worst is point %d, at %s.%s"
            .formatted(m.worstPoint() + 1, e.design().amount(p.applied().number()), explained);
    return Finding.of(
            "points-contradict",
            severity(e.channel()),
            WorkStep.FIT,
            Double.isNaN(m.worst())
                ? "The design has no value for point " + (m.worstPoint() + 1)
                : "The points contradict the design by " + worst(e, m),
            detail)
        .at(m.worstPoint());
  }

  /** What else would make all of them agree. */
  private static String others(PointsMisfit m, Cause.Kind but) {
    List<Cause> rest = m.causes().stream().filter(c -> c.kind() != but).toList();
    if (rest.isEmpty()) return "";
    String list = rest.stream().limit(SHOWN).map(Cause::says).collect(Collectors.joining("; or "));
    int more = rest.size() - Math.min(SHOWN, rest.size());
    return " They would agree with %s%s. Nothing here tells which."
        .formatted(list, more > 0 ? "; or %d more".formatted(more) : "");
  }
}
