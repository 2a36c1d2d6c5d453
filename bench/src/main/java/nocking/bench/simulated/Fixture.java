package nocking.bench.simulated;

/** What the hands can do at a scene beside moving the stimulus. */
public sealed interface Fixture {
  /**
   * A clamp that holds the sensor, and shifts it when it is tightened.
   *
   * @param shift volts that the output moves by when it is tightened
   * @param scatter standard deviation of that, volts
   */
  record Clamp(double shift, double scatter) implements Fixture {}

  /**
   * A teach wire: held to ground it takes the place for an end.
   *
   * @param low where the factory has the low end
   * @param high where the factory has the high end
   * @param lowVolts at the meter at the low end
   * @param highVolts at the meter at the high end
   * @param meanwhile volts at the meter while one end is taught and the other is not
   * @param most share of the travel by which an end may be moved
   * @param hold seconds for which the wire has to be held
   * @param reset seconds after which it goes back to the factory state
   * @param timeOut seconds after the first end within which the second has to be taught
   */
  record TeachWire(
      double low,
      double high,
      double lowVolts,
      double highVolts,
      double meanwhile,
      double most,
      double hold,
      double reset,
      double timeOut)
      implements Fixture {}
}
