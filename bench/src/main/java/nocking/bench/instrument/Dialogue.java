package nocking.bench.instrument;

import java.util.List;
import nocking.bench.instrument.InstrumentException.Kind;

/**
 * Questions and answers over a line of which nobody knows how it ends its lines. What an end is
 * found with is asked once more: an answer that came late to the end before is none to this one.
 */
final class Dialogue implements AutoCloseable {
  /** As programs do it, and as a serial line may want it (IEEE 488.2-1992, 7.5, has LF). */
  static final List<String> STANDARD = List.of("\n");

  static final List<String> ANY = List.of("\n", "\r\n", "\r");

  /** Milliseconds in which a greeting has come. */
  private static final int GREETING = 100;

  private final Line line;
  private final List<String> ends;
  private String end = "";

  /**
   * @param ends that are tried in this order
   */
  Dialogue(Line line, List<String> ends) {
    this.line = line;
    this.ends = ends;
  }

  /**
   * Throws away what lies in the line.
   *
   * @return the last of it; empty for nothing
   */
  String drain() throws InstrumentException {
    return line.drain();
  }

  /** The next line that comes by itself. */
  String receive() throws InstrumentException {
    String said = line.receive();
    if (line.bare()) throw noEnd();
    return said;
  }

  /** Sends what nothing answers. */
  void tell(String text) throws InstrumentException {
    line.send(text + (end.isEmpty() ? ends.getFirst() : end));
  }

  String ask(String question) throws InstrumentException {
    if (end.isEmpty()) return first(question);
    line.send(question + end);
    return line.receive();
  }

  private String first(String question) throws InstrumentException {
    // One that greets whoever comes does it now.
    if (line.comes(GREETING)) line.drain();
    InstrumentException last = null;
    for (String e : ends) {
      try {
        String said = asked(question, e);
        if (e.equals(ends.getFirst())) return said;
        line.drain();
        return asked(question, e);
      } catch (InstrumentException x) {
        if (x.kind() != Kind.NO_ANSWER) throw x;
        last = x;
      }
    }
    throw last;
  }

  /** A line without an end may be one that was torn: only one that comes so twice has none. */
  private String asked(String question, String e) throws InstrumentException {
    line.send(question + e);
    String said = line.receive();
    end = e;
    if (!line.bare()) return said;
    line.drain();
    line.send(question + e);
    String again = line.receive();
    if (!line.bare()) throw noEnd();
    line.endsByPause();
    return again;
  }

  private InstrumentException noEnd() {
    return new InstrumentException(Kind.ODD_ANSWER, line.name() + " sends without an end of line");
  }

  @Override
  public void close() {
    line.close();
  }
}
