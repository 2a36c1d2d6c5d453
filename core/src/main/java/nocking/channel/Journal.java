package nocking.channel;

import java.util.List;

/**
 * What was written down beside the work.
 *
 * @param locked true when settled; edits are refused until it is unlocked
 */
public record Journal(List<Note> notes, boolean locked) {
  public static final Journal EMPTY = new Journal(List.of(), false);

  public Journal {
    notes = notes == null ? List.of() : List.copyOf(notes);
  }

  public Journal withNotes(List<Note> v) {
    return new Journal(v, locked);
  }

  public Journal withLocked(boolean v) {
    return new Journal(notes, v);
  }
}
