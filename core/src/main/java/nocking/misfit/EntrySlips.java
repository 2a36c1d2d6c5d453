package nocking.misfit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import nocking.channel.Channel;
import nocking.path.SignalPath;
import nocking.points.PointSet;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Dimension;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/** What may have gone wrong while points were written down. Factors: NIST SP 811. */
final class EntrySlips {
  static final List<String> UNITS =
      List.of(
          "Pa",
          "kPa",
          "MPa",
          "bar",
          "mbar",
          "psi",
          "inHg",
          "mmHg",
          "inH2O",
          "mmH2O",
          "cmH2O",
          "kgf/cm^2",
          "°C",
          "°F",
          "K",
          "mm",
          "cm",
          "m",
          "in",
          "ft",
          "g",
          "kg",
          "lb",
          "oz",
          "t",
          "mV",
          "V",
          "N",
          "kN",
          "lbf",
          "kgf",
          "gf",
          "N·m",
          "mL",
          "L",
          "m^3",
          "mg/L",
          "g/L",
          "°",
          "rad",
          "%",
          "‰");

  private static final double[] FACTORS = {10, 0.1, 100, 0.01, 1000, 0.001};
  private static final double SLIP = 0.06;
  private static final double ANOTHER_SLIP = 0.25;
  private static final double UNIT = 0.1;
  private static final double PRESSURE_KIND = 0.05;
  private static final double IN_ORDER = 0.02;
  private static final double MIRROR = 0.03;
  private static final double RAW = 0.03;

  /** The ambient pressure differs from the stated one by height and weather. */
  private static final double WEATHER = 0.05;

  private final Channel channel;
  private final SignalPath path;
  private final Readings r;
  private final Trials trials;
  private final List<Cause> list = new ArrayList<>();

  EntrySlips(Channel channel, SignalPath path, Readings readings, Trials trials) {
    this.channel = channel;
    this.path = path;
    this.r = readings;
    this.trials = trials;
  }

  List<Cause> causes() {
    for (double factor : FACTORS) {
      slip(factor, true);
      slip(factor, false);
    }
    units();
    atmosphere();
    order();
    raw();
    return list;
  }

  /** Some of the readings, or of the applied values, are a power of ten off. */
  private void slip(double factor, boolean reading) {
    double[] applied = r.applied().clone();
    double[] volts = r.volts().clone();
    double[] divided = reading ? r.dividedBy(factor) : volts;
    double[] now = trials.design();
    var slipped = new ArrayList<Integer>();
    for (int i = 0; i < r.size(); i++) {
      double[] x = {applied[i]};
      double[] v = {volts[i]};
      if (reading) v[0] = divided[i];
      else x[0] /= factor;
      double mended = (v[0] - path.at(x[0]).output()) / r.slope()[i];
      boolean sound = Math.abs(now[i]) <= r.limit()[i];
      if (sound || !(Math.abs(mended) <= r.limit()[i])) continue;
      slipped.add(i);
      applied[i] = x[0];
      volts[i] = v[0];
    }
    if (slipped.isEmpty()) return;
    int n = slipped.size();
    double prior = SLIP / (2 * FACTORS.length) * Math.pow(ANOTHER_SLIP, Math.min(n, 4) - 1);
    if (n == 1) prior /= r.size();
    int[] index = slipped.stream().mapToInt(i -> r.index()[i]).toArray();
    String rows =
        Arrays.stream(index).mapToObj(i -> String.valueOf(i + 1)).collect(Collectors.joining(", "));
    String what = reading ? "reading" : "applied value";
    String many = n == 1 ? what + " of point " + rows : what + "s of points " + rows;
    String undo =
        factor > 1
            ? "Divide the %s by %s".formatted(many, Numbers.plain(factor))
            : "Multiply the %s by %s".formatted(many, Numbers.plain(Math.rint(1 / factor)));
    list.add(
        trials.cause(
            reading ? Cause.Kind.READING_SLIP : Cause.Kind.APPLIED_SLIP,
            "the %s without its %s slip".formatted(many, times(factor)),
            prior,
            applied,
            trials.against(applied, volts),
            index,
            c -> reading ? readings(c, index, factor) : applied(c, index, v -> v / factor, null),
            undo));
  }

  static String times(double factor) {
    return factor >= 1
        ? "×" + Numbers.plain(Math.rint(factor))
        : "÷" + Numbers.plain(Math.rint(1 / factor));
  }

  private void units() {
    Unit own = channel.unit();
    if (own.dimension().equals(Dimension.NONE) && !own.symbol().equals("%")) return;
    List<Unit> others =
        UNITS.stream()
            .map(Unit::of)
            .filter(u -> u.dimension().equals(own.dimension()))
            .filter(u -> u.factor() != own.factor() || u.offset() != own.offset())
            .toList();
    for (Unit u : others) {
      double[] applied = Arrays.stream(r.applied()).map(x -> u.convert(x, own)).toArray();
      list.add(
          trials.cause(
              Cause.Kind.APPLIED_UNIT,
              "the applied values in " + u.symbol(),
              UNIT / others.size(),
              applied,
              trials.against(applied, r.volts()),
              new int[0],
              c -> applied(c, Readings.counting(c), x -> u.convert(x, own), " " + u.symbol()),
              "Take the %s as %s".formatted(count("applied value"), u.symbol())));
    }
  }

  private String count(String what) {
    int n = Readings.counting(channel).length;
    return n == 1 ? what : n + " " + what + "s";
  }

  /** One of the two is absolute, the other gauge. */
  private void atmosphere() {
    Unit own = channel.unit();
    if (!own.dimension().equals(Dimension.PRESSURE)) return;
    double kilopascal = channel.design().surroundings().atmosphere().number();
    double atmosphere = Unit.of("kPa").convert(kilopascal, own);
    for (int sign : new int[] {1, -1}) {
      double[] applied = Arrays.stream(r.applied()).map(x -> x + sign * atmosphere).toArray();
      double[] left = trials.against(applied, r.volts());
      // The same shift everywhere is the weather's, not the points'.
      double weather =
          Math.clamp(
              Arrays.stream(left).average().orElse(0), -WEATHER * atmosphere, WEATHER * atmosphere);
      double[] settled = Arrays.stream(left).map(l -> l - weather).toArray();
      String shift = Numbers.significant(atmosphere, 4) + " " + own.symbol();
      list.add(
          trials.cause(
              Cause.Kind.ATMOSPHERE,
              sign > 0
                  ? "the applied values one atmosphere (%s) higher".formatted(shift)
                  : "the applied values one atmosphere (%s) lower".formatted(shift),
              PRESSURE_KIND,
              settled,
              new int[0],
              c -> applied(c, Readings.counting(c), x -> x + sign * atmosphere, null),
              sign > 0
                  ? "Add %s to the %s".formatted(shift, count("applied value"))
                  : "Take %s from the %s".formatted(shift, count("applied value"))));
    }
  }

  private void order() {
    int n = r.size();
    if (n >= 2) {
      List<ReferencePoint> all = channel.calibration().points().points();
      int[] counting = Readings.counting(channel);
      double[] reversed =
          Arrays.stream(r.index())
              .map(i -> counting[counting.length - 1 - Arrays.binarySearch(counting, i)])
              .mapToDouble(i -> r.scale().volts(all.get(i).mean()))
              .toArray();
      list.add(
          trials.cause(
              Cause.Kind.ORDER,
              "the readings in the opposite order",
              n == 2 ? IN_ORDER / 2 : IN_ORDER,
              trials.against(r.applied(), reversed),
              new int[0],
              EntrySlips::reversed,
              "Reverse the order of the %s".formatted(count("reading"))));
    }
    double[] now = trials.design();
    int[] off = IntStream.range(0, n).filter(i -> !(Math.abs(now[i]) <= r.limit()[i])).toArray();
    // Two that change places explain nothing where a third one is off.
    if (n > 2 && off.length == 2) exchanged(off[0], off[1]);
    Span w = channel.definition().working();
    double[] mirrored = Arrays.stream(r.applied()).map(x -> w.low() + w.high() - x).toArray();
    list.add(
        trials.cause(
            Cause.Kind.MIRRORED,
            "a signal that runs the other way",
            MIRROR,
            trials.against(mirrored, r.volts()),
            new int[0],
            null,
            ""));
  }

  private void exchanged(int i, int j) {
    int n = r.size();
    double[] volts = r.volts().clone();
    volts[i] = r.volts()[j];
    volts[j] = r.volts()[i];
    int a = r.index()[i];
    int b = r.index()[j];
    String two = "%d and %d".formatted(a + 1, b + 1);
    list.add(
        trials.cause(
            Cause.Kind.EXCHANGED,
            "the readings of points %s exchanged".formatted(two),
            IN_ORDER / n,
            trials.against(r.applied(), volts),
            new int[] {a, b},
            c -> readingsFrom(c, new int[] {a, b}, new int[] {b, a}),
            "Exchange the readings of points " + two));
  }

  /** Counts of another converter, counts written down as volts, volts as counts. */
  private void raw() {
    boolean counts = channel.calibration().points().raw() == RawUnit.COUNTS;
    int own = (int) channel.design().converter().bits().number();
    for (int bits : new int[] {8, 10, 12, 14, 16, 18, 24}) {
      if (bits == own || !counts) continue;
      double factor = Math.pow(2, own - bits);
      raw(
          "counts of a %d-bit converter".formatted(bits),
          x -> channel.design().converter().volts(x * factor),
          x -> Math.floor(x * factor),
          "Take the readings as counts of %d bits".formatted(bits),
          RawUnit.COUNTS);
    }
    RawUnit now = channel.calibration().points().raw();
    Optional<RawUnit> sensor = RawScale.own(channel.design().sensor());
    if (now.ofSensor()) {
      raw(
          "volts written down as " + now.title(),
          x -> x,
          x -> x,
          "Take the readings as volts",
          RawUnit.VOLTS);
      return;
    }
    sensor.ifPresent(gives -> ofSensor(now, gives));
    if (counts) {
      raw(
          "volts written down as counts",
          x -> x,
          x -> x,
          "Take the readings as volts",
          RawUnit.VOLTS);
    } else {
      raw(
          "counts written down as volts",
          x -> channel.design().converter().volts(x),
          x -> x,
          "Take the readings as counts",
          RawUnit.COUNTS);
    }
  }

  /** What the sensor itself gives, written down where volts or counts are expected. */
  private void ofSensor(RawUnit now, RawUnit own) {
    RawScale scale =
        RawScale.of(own, channel.design().converter(), Optional.of(path)).orElseThrow();
    raw(
        "%s written down as %s".formatted(own.title(), now.title()),
        scale::volts,
        x -> x,
        "Take the readings as " + own.title(),
        own);
  }

  private void raw(
      String says,
      DoubleUnaryOperator volts,
      DoubleUnaryOperator number,
      String label,
      RawUnit unit) {
    double[] v = new double[r.size()];
    for (int i = 0; i < v.length; i++) {
      v[i] = volts.applyAsDouble(channel.calibration().points().points().get(r.index()[i]).mean());
    }
    list.add(
        trials.cause(
            Cause.Kind.RAW_UNIT,
            says,
            RAW,
            trials.against(r.applied(), v),
            new int[0],
            c -> {
              List<ReferencePoint> next =
                  c.calibration().points().points().stream()
                      .map(
                          p ->
                              p.withReadings(
                                  p.readings().stream()
                                      .map(x -> Value.of(number.applyAsDouble(x.number())))
                                      .toList()))
                      .toList();
              return c.calibration(k -> k.withPoints(new PointSet(unit, next)));
            },
            label));
  }

  private static Channel readings(Channel c, int[] index, double factor) {
    return changed(
        c,
        index,
        p ->
            p.withReadings(
                p.readings().stream()
                    .map(
                        v ->
                            Value.of(
                                Double.parseDouble(Numbers.significant(v.number() / factor, 15))))
                    .toList()));
  }

  /** Applied values changed; what was typed is kept with its unit where there is one. */
  private static Channel applied(Channel c, int[] index, DoubleUnaryOperator change, String unit) {
    return changed(
        c,
        index,
        p -> {
          double x = change.applyAsDouble(p.applied().number());
          String typed = unit == null ? Value.of(x).typed() : p.applied().typed() + unit;
          return p.withApplied(new Value(x, typed));
        });
  }

  private static Channel changed(Channel c, int[] index, UnaryOperator<ReferencePoint> change) {
    PointSet set = c.calibration().points();
    var next = new ArrayList<>(set.points());
    for (int i : index) next.set(i, change.apply(next.get(i)));
    return c.with(c.calibration().withPoints(new PointSet(set.raw(), next)));
  }

  /** The readings of all points that count, the last first. */
  private static Channel reversed(Channel c) {
    int[] index = Readings.counting(c);
    int n = index.length;
    return readingsFrom(c, index, IntStream.range(0, n).map(i -> index[n - 1 - i]).toArray());
  }

  /** Points with the readings of others, both by their place in the document. */
  private static Channel readingsFrom(Channel c, int[] to, int[] from) {
    PointSet set = c.calibration().points();
    var next = new ArrayList<>(set.points());
    for (int i = 0; i < to.length; i++) {
      next.set(to[i], next.get(to[i]).withReadings(set.points().get(from[i]).readings()));
    }
    return c.with(c.calibration().withPoints(new PointSet(set.raw(), next)));
  }
}
