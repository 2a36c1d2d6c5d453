package nocking.book.exchange;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import nocking.fit.Samples;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.table.BenchPairs;
import nocking.table.RawAxis;
import nocking.table.Truth;

/**
 * Bench pairs of a column file with the raw steps that a receiver holds.
 *
 * @param file with the rows that count
 * @param pairs raw and true, raw rounded to whole steps
 * @param axis what the raw column is
 * @param rawDecimals of a raw step
 * @param notCounting why rows of the file are none of the pairs, a sentence for each
 */
public record TableColumns(
    ColumnFile file,
    Samples pairs,
    RawUnit axis,
    int rawDecimals,
    int rawColumn,
    int trueColumn,
    List<String> notCounting) {
  private static final int DIGITS = 5;
  private static final int MOST_DECIMALS = 9;
  private static final int EXACT = 12;

  /**
   * @param x raw column, null for what is called so, or has its unit, or stands first
   * @param y true column, null for the other one
   * @param rawUnit V, counts or ohm; null to go by the file
   */
  public static TableColumns of(ColumnFile f, String x, String y, String rawUnit) {
    PointColumns found = PointColumns.of(f, PointColumns.Order.RAW_FIRST);
    boolean asked = x != null || y != null;
    int first = found.readings().getFirst();
    int rawColumn =
        x != null ? f.column(x) : y != null && f.column(y) == first ? found.applied() : first;
    int trueColumn =
        y != null ? f.column(y) : rawColumn == found.applied() ? first : found.applied();
    PointColumns counts = found.counting();
    double[] raw = asked ? counts.file().numbers(rawColumn) : counts.means();
    boolean averaged = !asked && found.readings().size() > 1;
    RawUnit axis = axis(counts.file(), rawColumn, raw, rawUnit, averaged);
    // A table counts in volts, whatever prefix its file has.
    raw = inUnit(raw, counts.file().unit(rawColumn), axis);
    int decimals = axis == RawUnit.COUNTS ? 0 : decimals(raw);
    double scale = Math.pow(10, decimals);
    double[] held = Arrays.stream(raw).map(v -> Math.rint(v * scale) / scale).toArray();
    return new TableColumns(
        counts.file(),
        new Samples(held, counts.file().numbers(trueColumn)),
        axis,
        decimals,
        rawColumn,
        trueColumn,
        found.notCounting());
  }

  private static double[] inUnit(double[] raw, Optional<Unit> stated, RawUnit axis) {
    Unit to = axis.unit();
    boolean other =
        stated
            .filter(u -> u.dimension().equals(to.dimension()) && u.factor() != to.factor())
            .isPresent();
    if (!other) return raw;
    // Digits that a prefix makes behind those that were written are none.
    return Arrays.stream(raw)
        .map(v -> Double.parseDouble(Numbers.significant(stated.get().convert(v, to), EXACT)))
        .toArray();
  }

  /** Whole numbers are counts unless their unit says that they are something else. */
  private static RawUnit axis(
      ColumnFile f, int column, double[] raw, String said, boolean averaged) {
    boolean whole = Arrays.stream(raw).allMatch(v -> v == Math.rint(v));
    Optional<Unit> unit = f.unit(column);
    RawUnit axis =
        said != null
            ? said(said)
            : unit.flatMap(TableColumns::axis).orElse(whole ? RawUnit.COUNTS : RawUnit.VOLTS);
    // A mean of counts lies between two of them.
    if (axis == RawUnit.COUNTS && !whole && !averaged) {
      throw new ColumnException(f.source() + " has counts that are no whole numbers");
    }
    return axis;
  }

  private static Optional<RawUnit> axis(Unit u) {
    return Arrays.stream(RawUnit.values())
        .filter(r -> r.unit().dimension().equals(u.dimension()))
        .filter(r -> r != RawUnit.COUNTS || u.equals(Unit.COUNTS))
        .findFirst();
  }

  private static RawUnit said(String word) {
    return switch (word) {
      case "V", "volts" -> RawUnit.VOLTS;
      case "counts" -> RawUnit.COUNTS;
      case "ohm", "ohms", "Ω" -> RawUnit.OHMS;
      case "mA", "milliamperes" -> RawUnit.MILLIAMPERES;
      default ->
          throw new QuantityException(
              "read --raw-unit '%s', expected V, counts, ohm or mA".formatted(word));
    };
  }

  /** Decimals that keep what was written, and five digits, as far as that makes a sane axis. */
  private static int decimals(double[] raw) {
    int most = 0;
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (double v : raw) {
      most = Math.max(most, BigDecimal.valueOf(v).stripTrailingZeros().scale());
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
    int d = Math.clamp(Math.max(most, digitsFor(high)), 0, MOST_DECIMALS);
    while (d > 0 && (high - low) * Math.pow(10, d) > RawAxis.MOST) d--;
    return d;
  }

  /** Decimals that give five significant digits at this size. */
  static int digitsFor(double size) {
    if (size == 0) return DIGITS;
    return Math.clamp(DIGITS - 1 - (int) Math.floor(Math.log10(Math.abs(size))), 0, MOST_DECIMALS);
  }

  /** Few rows with a value each are a datasheet's: straight lines are taken to be true between. */
  public boolean rows() {
    return BenchPairs.rows(pairs, Truth.of(pairs, rawDecimals));
  }

  public Truth truth() {
    return BenchPairs.truth(pairs, rawDecimals);
  }

  /**
   * The pairs as a channel keeps them, true values in its unit.
   *
   * @throws QuantityException where the column states a unit of another kind
   */
  public BenchPairs pairs(Unit channel) {
    Optional<Unit> stated = file.unit(trueColumn);
    List<Double> raw = Arrays.stream(pairs.raw()).boxed().toList();
    double[] truth = file.numbers(trueColumn);
    if (stated.isPresent() && !stated.get().dimension().equals(channel.dimension())) {
      throw new ColumnException(
          "%s: column \"%s\" is in %s, this channel counts in %s"
              .formatted(
                  file.source(),
                  file.header().get(trueColumn),
                  stated.get().symbol(),
                  channel.symbol()));
    }
    List<Double> own =
        Arrays.stream(truth)
            .map(y -> stated.map(u -> u.equals(channel) ? y : u.convert(y, channel)).orElse(y))
            .boxed()
            .toList();
    return new BenchPairs(file.source(), axis, raw, own);
  }

  /** Unit of the true column; the plain number where the file states none. */
  public Unit unit() {
    return file.unit(trueColumn).orElse(Unit.ONE);
  }

  public int outDecimals() {
    return digitsFor(Arrays.stream(pairs.quantity()).map(Math::abs).max().orElse(1));
  }

  /** Line of the file in which a pair stands. */
  public int line(int pair) {
    return file.rows().get(pair).line();
  }

  public String raw(double v) {
    return Numbers.fixed(v, rawDecimals);
  }
}
