package nocking.channel;

import nocking.check.CheckSheet;

/**
 * What shows that the channel does what it is for.
 *
 * @param check applied values and what was read at them
 */
public record Acceptance(CheckSheet check) {
  public static final Acceptance EMPTY = new Acceptance(CheckSheet.EMPTY);

  public Acceptance withCheck(CheckSheet v) {
    return new Acceptance(v);
  }
}
