package nocking.bench.instrument;

/**
 * A reference that someone reads by eye and types. Until something is typed for a set point it says
 * nothing. Safe for several threads.
 */
public final class HandReference implements Reference {
  private volatile double typed = Double.NaN;

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

  @Override
  public void bringTo(double setPoint) {
    typed = Double.NaN;
  }

  @Override
  public void close() {}
}
