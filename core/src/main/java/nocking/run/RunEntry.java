package nocking.run;

/** A line of a run's journal beside its readings. */
public sealed interface RunEntry permits Act, PlanCorrection, RunPoint {
  /** Milliseconds since 1970. */
  long at();
}
