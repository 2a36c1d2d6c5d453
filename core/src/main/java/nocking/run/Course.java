package nocking.run;

/** In which order set points are visited. */
public enum Course {
  UP("up"),
  DOWN("down"),
  UP_DOWN("up, down"),
  RANDOM("random"),
  /** One after the other as they were said, one that is said twice twice. */
  AS_GIVEN("as given");

  private final String title;

  Course(String title) {
    this.title = title;
  }

  public String title() {
    return title;
  }
}
