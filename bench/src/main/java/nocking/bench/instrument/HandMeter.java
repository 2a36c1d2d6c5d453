package nocking.bench.instrument;

/** A meter that someone looks at and types: each number that is typed is one reading. */
public final class HandMeter implements Reference {
  private double typed = Double.NaN;

  /**
   * What was read.
   *
   * @param value in the unit of the meter
   */
  public synchronized void type(double value) {
    typed = value;
  }

  /** True while a reading waits to be taken. */
  public synchronized boolean waits() {
    return !Double.isNaN(typed);
  }

  @Override
  public String identity() {
    return "";
  }

  @Override
  public synchronized double read() {
    double v = typed;
    typed = Double.NaN;
    return v;
  }

  @Override
  public void bringTo(double setPoint) {}

  @Override
  public void close() {}
}
