package nocking.bench.simulated;

/**
 * How what is applied follows its set point.
 *
 * @param unit of the quantity
 * @param rest where it is and goes by itself
 * @param low least that can be applied
 * @param high most that can be applied
 * @param lag time constant of the approach in seconds, at least 0.05
 * @param rate most that it moves in a second, above 0
 * @param leak time constant in seconds with which it falls back to rest once it was brought
 *     somewhere; 0 for none
 * @param backlash width of the play between what the reference shows and what is applied
 * @param wave height of waves on it
 * @param period of the waves in seconds, above 0
 * @param gradient change for each millimetre of depth
 * @param scatter standard deviation of one reading of the reference
 * @param resolution step of the reference's display, above 0
 */
public record Stimulus(
    String unit,
    double rest,
    double low,
    double high,
    double lag,
    double rate,
    double leak,
    double backlash,
    double wave,
    double period,
    double gradient,
    double scatter,
    double resolution) {

  /** One that comes to its set point and stays there. */
  static Stimulus steady(
      String unit, double low, double high, double lag, double scatter, double resolution) {
    return new Stimulus(
        unit, low, low, high, lag, (high - low) / 10, 0, 0, 0, 1, 0, scatter, resolution);
  }

  Stimulus withRest(double v) {
    return new Stimulus(
        unit, v, low, high, lag, rate, leak, backlash, wave, period, gradient, scatter, resolution);
  }

  Stimulus withRate(double v) {
    return new Stimulus(
        unit, rest, low, high, lag, v, leak, backlash, wave, period, gradient, scatter, resolution);
  }

  Stimulus withLeak(double v) {
    return new Stimulus(
        unit, rest, low, high, lag, rate, v, backlash, wave, period, gradient, scatter, resolution);
  }

  Stimulus withBacklash(double v) {
    return new Stimulus(
        unit, rest, low, high, lag, rate, leak, v, wave, period, gradient, scatter, resolution);
  }

  Stimulus withWaves(double height, double seconds) {
    return new Stimulus(
        unit,
        rest,
        low,
        high,
        lag,
        rate,
        leak,
        backlash,
        height,
        seconds,
        gradient,
        scatter,
        resolution);
  }

  Stimulus withGradient(double v) {
    return new Stimulus(
        unit, rest, low, high, lag, rate, leak, backlash, wave, period, v, scatter, resolution);
  }
}
