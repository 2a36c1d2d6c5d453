package nocking.channel;

import java.util.Locale;
import nocking.procedure.JobRecord;
import nocking.run.Act;
import nocking.run.Instrument;
import nocking.run.PlanCorrection;
import nocking.run.RunEntry;
import nocking.run.RunPlan;
import nocking.run.RunPoint;

/** The JSON form of plans, instruments and of what is written down in a run. */
public final class RunJson {
  /** Value of {@code format} in a plan's file. */
  public static final String FORMAT = "nocking-run-1";

  /** Kind of a line that is a point. */
  public static final String POINT = "point";

  private static final String CORRECTION = "correction";

  private record PlanFile(String format, RunPlan run) {}

  private RunJson() {}

  /** The plan as a file of its own. */
  public static String planFile(RunPlan plan) {
    return DocumentJson.pretty(new PlanFile(FORMAT, plan));
  }

  /**
   * @param source name of the file, for messages
   * @throws DocumentException one sentence naming the place, what was read and what was expected
   */
  public static RunPlan readPlanFile(String json, String source) {
    PlanFile file = DocumentJson.parse(json, source, PlanFile.class);
    DocumentJson.requireFormat(file.format, FORMAT, source);
    if (file.run == null) throw new DocumentException(source + " has no run in it");
    return file.run;
  }

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

  /** The record of a procedure, as it is kept beside the end of its run. */
  public static String compact(JobRecord record) {
    return DocumentJson.compact(record);
  }

  /**
   * @throws DocumentException one sentence naming the place, what was read and what was expected
   */
  public static JobRecord readRecord(String json, String source) {
    return DocumentJson.parse(json, source, JobRecord.class);
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
   * @param kind as {@link #kind} names it
   * @throws DocumentException as {@link #readPlan}
   */
  public static RunEntry readEntry(String kind, String json, String source) {
    return switch (kind) {
      case POINT -> DocumentJson.parse(json, source, RunPoint.class);
      case CORRECTION -> DocumentJson.parse(json, source, PlanCorrection.class);
      default -> DocumentJson.parse(json, source, Act.class);
    };
  }

  /** The kind of a line, which stands beside it in the book. */
  public static String kind(RunEntry entry) {
    return switch (entry) {
      case RunPoint _ -> POINT;
      case PlanCorrection _ -> CORRECTION;
      case Act a -> a.kind().name().toLowerCase(Locale.ROOT);
    };
  }
}
