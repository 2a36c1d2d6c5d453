package nocking.channel;

/** The eight stages of the work, in their order. */
public enum WorkStep {
  DEFINE("Define"),
  CONDITION("Condition"),
  WIRE("Wire"),
  COLLECT("Collect"),
  FIT("Fit"),
  TABLE("Table"),
  CHECK("Check"),
  RECORD("Record");

  private final String title;

  WorkStep(String title) {
    this.title = title;
  }

  public String title() {
    return title;
  }
}
