package nocking.bench.instrument;

/**
 * A reference that someone reads by eye and types. Until something is typed for a set point it says
 * nothing. Safe for several threads.
 */
public final class HandReference implements Reference {
  private volatile double typed = Double.NaN;
  private double setPoint = Double.NaN;

  /**
   * What was read by eye.
   *
   * @param value in the unit of the plan
   */
  public void type(double value) {
    typed = value;
  }

  @Override
  public String identity() {
    return "";
  }

  @Override
  public double read() {
    return typed;
  }

  /** What was typed at one set point says nothing of the next. */
  @Override
  public void bringTo(double setPoint) {
    if (setPoint != this.setPoint) typed = Double.NaN;
    this.setPoint = setPoint;
  }

  @Override
  public void close() {}
}
