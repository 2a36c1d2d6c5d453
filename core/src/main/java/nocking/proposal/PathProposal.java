package nocking.proposal;

import java.util.List;
import nocking.channel.Channel;
import nocking.quantity.Span;
import nocking.stage.Stage;

/**
 * A whole conditioning, and what it comes to on its channel.
 *
 * @param name in words
 * @param volts at the converter at the start and the end of the working range, whichever is less
 *     first
 * @param share of the converter's reference that the working range takes
 * @param before largest error of the budget with the parts as they come, channel's unit
 * @param after the same with a calibration at both ends
 * @param count what one count is worth at its worst, channel's unit
 * @param told broken wires that the volts at the converter give away
 * @param wires broken wires that there are
 * @param amperes that the sensor carries or gives at most; 0 where it is read without a current
 * @param parts resistors, those that make a reference among them, capacitors and amplifiers
 * @param holds true where the error after calibration and one count are inside the tolerance
 * @param why in one sentence
 */
public record PathProposal(
    String name,
    List<Stage> stages,
    Span volts,
    double share,
    double before,
    double after,
    double count,
    int told,
    int wires,
    double amperes,
    int parts,
    boolean holds,
    String why) {

  public PathProposal {
    stages = List.copyOf(stages);
  }

  PathProposal because(String sentence) {
    return new PathProposal(
        name, stages, volts, share, before, after, count, told, wires, amperes, parts, holds,
        sentence);
  }

  /** The channel with this conditioning in the place of what it has. */
  public Channel putInto(Channel channel) {
    return channel.design(d -> d.withStages(stages));
  }
}
