package nocking.bench.instrument;

/** Something that says what is applied, and may bring it about. */
public interface Reference extends Meter {
  /**
   * Brings what is applied to a set point; does nothing where hands do it.
   *
   * @param setPoint in the instrument's own unit
   * @throws InstrumentException when it does not take it
   */
  void bringTo(double setPoint) throws InstrumentException;
}
