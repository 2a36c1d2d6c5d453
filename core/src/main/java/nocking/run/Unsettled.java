package nocking.run;

/** What becomes of a point that has not settled when its time is over. */
public enum Unsettled {
  /** It is taken and marked. */
  TAKE("take it, marked"),
  SKIP("skip the point"),
  STOP("stop the run");

  private final String title;

  Unsettled(String title) {
    this.title = title;
  }

  public String title() {
    return title;
  }
}
