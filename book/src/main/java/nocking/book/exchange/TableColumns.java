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
 * @param pairs raw and true, raw rounded to whole steps
 * @param axis what the raw column is
 * @param rawDecimals of a raw step
 */
public record TableColumns(
    ColumnFile file, Samples pairs, RawUnit axis, int rawDecimals, int rawColumn, int trueColumn) {
  private static final int DIGITS = 5;
  private static final int MOST_DECIMALS = 9;

  /**
   * @param x raw column, null for the first
   * @param y true column, null for the second
   * @param rawUnit V, counts or ohm; null to go by the file
   */
  public static TableColumns of(ColumnFile f, String x, String y, String rawUnit) {
    if (f.header().size() < 2 || f.rows().isEmpty()) {
      throw new ColumnException(f.source() + " needs two columns, raw and true, and rows in them");
    }
    int rawColumn = x != null ? f.column(x) : y != null && f.column(y) == 0 ? 1 : 0;
    int trueColumn = y != null ? f.column(y) : rawColumn == 1 ? 0 : 1;
    double[] raw = f.numbers(rawColumn);
    RawUnit axis = axis(f, rawColumn, raw, rawUnit);
    int decimals = axis == RawUnit.COUNTS ? 0 : decimals(raw);
    double scale = Math.pow(10, decimals);
    double[] held = Arrays.stream(raw).map(v -> Math.rint(v * scale) / scale).toArray();
    return new TableColumns(
        f, new Samples(held, f.numbers(trueColumn)), axis, decimals, rawColumn, trueColumn);
  }

  /** Whole numbers are counts unless their unit says that they are something else. */
  private static RawUnit axis(ColumnFile f, int column, double[] raw, String said) {
    boolean whole = Arrays.stream(raw).allMatch(v -> v == Math.rint(v));
    Optional<Unit> unit = f.unit(column);
    RawUnit axis =
        said != null
            ? said(said)
            : unit.flatMap(TableColumns::axis).orElse(whole ? RawUnit.COUNTS : RawUnit.VOLTS);
    if (axis == RawUnit.COUNTS && !whole) {
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
      default ->
          throw new QuantityException(
              "read --raw-unit '%s', expected V, counts or ohm".formatted(word));
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
    List<Double> raw = Arrays.stream(file.numbers(rawColumn)).boxed().toList();
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
