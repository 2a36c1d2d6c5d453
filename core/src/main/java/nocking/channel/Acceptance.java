package nocking.channel;

import nocking.check.CheckTable;

/**
 * What shows that the channel does what it is for.
 *
 * @param check applied values and what was read at them
 */
public record Acceptance(CheckTable check) {
  public static final Acceptance EMPTY = new Acceptance(CheckTable.EMPTY);

  public Acceptance withCheck(CheckTable v) {
    return new Acceptance(v);
  }
}
