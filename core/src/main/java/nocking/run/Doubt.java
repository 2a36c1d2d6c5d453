package nocking.run;

/**
 * Why a point is not taken without somebody's yes.
 *
 * @param channel number of the channel in the plan; negative for none of them, but the references
 * @param applied what was applied, in the unit of the plan; NaN where it is not known
 * @param raw what was read, in the raw unit of the channel
 * @param soundBefore true where points were taken before that nothing spoke against
 * @param says a sentence without its end
 */
public record Doubt(int channel, double applied, double raw, boolean soundBefore, String says) {
  /** How a sentence begins that speaks of the references, and so of all channels. */
  static final String REFERENCES = "the references are ";
}
