package nocking.stage;

/** Which of its parts a stage lets be chosen, and by what. */
public enum PartChoice {
  /** Nothing to choose. */
  NONE,
  /** One resistance, combined from several parts. */
  RESISTANCE,
  /** A pull-up, by how straight the reading becomes. */
  PULL_UP,
  /** Two resistors that divide, by the output wanted. */
  DIVIDER,
  /** Gain and the voltage that is taken off, by the output wanted. */
  DIFFERENCE,
  /** Both wipers of a blend about a reference, by the output wanted. */
  BLEND,
  /** Gain and shift, by the output wanted; the stage may become another one, or two. */
  GAIN_AND_SHIFT;

  /** True where the output may be kept below a limit. */
  public boolean limited() {
    return this == DIVIDER || this == DIFFERENCE || this == GAIN_AND_SHIFT;
  }

  /** True where the output at both ends of the working range is what is asked for. */
  public boolean bySpan() {
    return this == DIVIDER || this == DIFFERENCE || this == BLEND || this == GAIN_AND_SHIFT;
  }
}
