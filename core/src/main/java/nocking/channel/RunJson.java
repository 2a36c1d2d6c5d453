package nocking.channel;

import nocking.run.Act;
import nocking.run.Instrument;
import nocking.run.RunEntry;
import nocking.run.RunPlan;
import nocking.run.RunPoint;

/** The JSON form of plans, instruments and of what is written down in a run. */
public final class RunJson {
  private RunJson() {}

  /** The plan on one line, as the book keeps it. */
  public static String compact(RunPlan plan) {
    return DocumentJson.compact(plan);
  }

  /** An instrument on one line, as the book keeps it. */
  public static String compact(Instrument instrument) {
    return DocumentJson.compact(instrument);
  }

  /** A line of the journal, as the book keeps it; its kind stands beside it. */
  public static String compact(RunEntry entry) {
    return DocumentJson.compact(entry);
  }

  /**
   * @throws DocumentException one sentence naming the place, what was read and what was expected
   */
  public static RunPlan readPlan(String json, String source) {
    return DocumentJson.parse(json, source, RunPlan.class);
  }

  /**
   * @throws DocumentException as {@link #readPlan}
   */
  public static Instrument readInstrument(String json, String source) {
    return DocumentJson.parse(json, source, Instrument.class);
  }

  /**
   * @param point true for a point, false for an act
   * @throws DocumentException as {@link #readPlan}
   */
  public static RunEntry readEntry(boolean point, String json, String source) {
    return point
        ? DocumentJson.parse(json, source, RunPoint.class)
        : DocumentJson.parse(json, source, Act.class);
  }
}
