package nocking.firmware;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.zip.CRC32;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.table.Outside;
import nocking.table.StepTable;

/**
 * A table in a receiver's firmware: its widths, what it does outside its ends, and the very values
 * that its look-up gives. The generated C computes nothing that is not computed here, bit for bit.
 *
 * @param rawBits width of the raw codes, 2 to 31: 0 … 2ᵇ − 1, or −2ᵇ⁻¹ … 2ᵇ⁻¹ − 1 where the table
 *     has codes below 0
 * @param outBits width of the outputs, 2 to 32, signed
 * @param real true for a look-up with single-precision floating point
 * @param guards limits of raw codes and outputs that are built in
 */
public record TableFirmware(
    StepTable table, Outside outside, int rawBits, int outBits, boolean real, Guards guards) {
  /** What an integer look-up gives where it has no reading. */
  public static final int FAULT = Integer.MIN_VALUE;

  public TableFirmware {
    within("--raw-bits", rawBits, 31);
    within("--out-bits", outBits, 32);
    int[] raw = table.raw();
    boolean signed = raw[0] < 0;
    long least = signed ? -(1L << (rawBits - 1)) : 0;
    long most = signed ? (1L << (rawBits - 1)) - 1 : (1L << rawBits) - 1;
    for (int r : raw) {
      if (r < least || r > most) {
        throw new QuantityException(
            "raw step %d does not fit %d bits%s, %d … %d"
                .formatted(r, rawBits, signed ? " with a sign" : "", least, most));
      }
    }
  }

  /** A look-up with nothing built in beside its table. */
  public TableFirmware(StepTable table, Outside outside, int rawBits, int outBits, boolean real) {
    this(table, outside, rawBits, outBits, real, Guards.NONE);
  }

  /**
   * The firmware of a table of which every result fits.
   *
   * @throws QuantityException where a code, an output or a result does not fit its width
   */
  public static TableFirmware of(
      StepTable table, Outside outside, int rawBits, int outBits, boolean real) {
    return new TableFirmware(table, outside, rawBits, outBits, real).proven();
  }

  /**
   * The same with limits built in.
   *
   * @throws QuantityException where an output that is held does not fit its width
   */
  public TableFirmware with(Guards v) {
    return new TableFirmware(table, outside, rawBits, outBits, real, v).proven();
  }

  /** The least width, 8 at least, that holds the raw steps of a table. */
  public static int bitsFor(StepTable t) {
    long most = Math.max(t.raw()[t.count() - 1], -(long) t.raw()[0] - 1);
    int bits = Math.max(8, Long.SIZE - Long.numberOfLeadingZeros(Math.max(1, most)));
    return t.raw()[0] < 0 ? bits + 1 : bits;
  }

  private TableFirmware proven() {
    if (!real) {
      proof();
      if (guards.least() != null) fits(guards.least(), first());
      if (guards.most() != null) fits(guards.most(), last());
    }
    return this;
  }

  /** True where some raw code has no reading. */
  boolean givesFaults() {
    return outside == Outside.FAULT || guards.faults();
  }

  private static void within(String option, int bits, int most) {
    if (bits < 2 || bits > most) {
      throw new QuantityException("%s: read %d, expected 2 … %d".formatted(option, bits, most));
    }
  }

  /** Least raw code of the declared width. */
  public int leastRaw() {
    return table.raw()[0] < 0 ? -(1 << (rawBits - 1)) : 0;
  }

  /** Largest raw code of the declared width. */
  public int mostRaw() {
    return (int) (table.raw()[0] < 0 ? (1L << (rawBits - 1)) - 1 : (1L << rawBits) - 1);
  }

  int first() {
    return table.raw()[0];
  }

  int last() {
    return table.raw()[table.count() - 1];
  }

  /** Raw codes are held within the declared width first, whatever comes in. */
  private int held(int raw) {
    return Math.clamp(raw, leastRaw(), mostRaw());
  }

  /** What the integer look-up gives for any 32-bit code. */
  public int look(int raw) {
    int at = held(raw);
    if (guards.fault(at)) return FAULT;
    if (at < first() || at > last()) {
      if (outside == Outside.FAULT) return FAULT;
      if (outside == Outside.HOLD) at = Math.clamp(at, first(), last());
    }
    return Math.toIntExact(guards.shown(table.whole(at)));
  }

  /** What the look-up with floats gives, in the quantity; NaN for a fault. */
  public float lookReal(int raw) {
    int at = held(raw);
    if (guards.fault(at)) return Float.NaN;
    if (at < first() || at > last()) {
      if (outside == Outside.FAULT) return Float.NaN;
      if (outside == Outside.HOLD) at = Math.clamp(at, first(), last());
    }
    int[] r = table.raw();
    int i = table.line(at);
    float y0 = out(i);
    float y1 = out(i + 1);
    float y = y0 + (y1 - y0) * ((float) (at - r[i]) / (float) (r[i + 1] - r[i]));
    if (guards.least() != null) y = Math.max(y, single(guards.least()));
    return guards.most() == null ? y : Math.min(y, single(guards.most()));
  }

  /** An output as the nearest float, in the quantity. */
  float out(int cell) {
    return single(table.out()[cell]);
  }

  /** Steps of the output as the nearest float, in the quantity. */
  float single(long steps) {
    return (float) (steps / Math.pow(10, table.outDecimals()));
  }

  /**
   * What the arithmetic needs, over all codes of the declared width.
   *
   * @param product largest |(out₁ − out₀)·(raw − raw₀)| + d/2
   * @param productAt raw code where it stands
   * @param low least output
   * @param high largest output
   */
  public record Proof(long product, int productAt, long low, long high) {
    /** True when 32 bits with a sign hold every product. */
    public boolean narrow() {
      return product <= Integer.MAX_VALUE;
    }
  }

  /**
   * Goes through the ends of all lines: between them everything is monotone.
   *
   * @throws QuantityException where an output does not fit its width
   */
  public Proof proof() {
    int[] r = table.raw();
    long[] o = table.out();
    boolean extend = outside == Outside.EXTEND;
    int from = extend ? leastRaw() : first();
    int to = extend ? mostRaw() : last();
    long product = 0;
    int productAt = from;
    long low = Long.MAX_VALUE;
    long high = Long.MIN_VALUE;
    for (int i = 0; i < r.length - 1; i++) {
      int a = i == 0 ? Math.min(from, r[0]) : r[i];
      int b = i == r.length - 2 ? Math.max(to, r[i + 1]) : r[i + 1];
      long half = ((long) r[i + 1] - r[i]) / 2;
      for (int at : new int[] {a, b}) {
        long p = Math.abs((o[i + 1] - o[i]) * ((long) at - r[i])) + half;
        if (p > product) {
          product = p;
          productAt = at;
        }
        long v = table.whole(at);
        fits(v, at);
        low = Math.min(low, v);
        high = Math.max(high, v);
      }
    }
    return new Proof(product, productAt, low, high);
  }

  private void fits(long v, int at) {
    long most = (1L << (outBits - 1)) - 1;
    // The least value of 32 bits is the fault.
    long least = outBits == 32 ? -most : -most - 1;
    if (v < least || v > most) {
      throw new QuantityException(
          "at raw %d the table gives %s, %d output steps: %d bits with a sign hold %d … %d"
              .formatted(
                  at,
                  Numbers.fixed(v * table.step(), table.outDecimals()),
                  v,
                  outBits,
                  least,
                  most));
    }
  }

  /** CRC-32 (IEEE 802.3) of the cells, each raw and output as 32 bits, least byte first. */
  public int crc() {
    var bytes = ByteBuffer.allocate(8 * table.count()).order(ByteOrder.LITTLE_ENDIAN);
    for (int i = 0; i < table.count(); i++) {
      bytes.putInt(table.raw()[i]).putInt((int) table.out()[i]);
    }
    var crc = new CRC32();
    crc.update(bytes.array());
    return (int) crc.getValue();
  }
}
