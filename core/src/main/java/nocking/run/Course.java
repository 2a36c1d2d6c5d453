package nocking.run;

/** In which order set points are visited. */
public enum Course {
  UP("up"),
  DOWN("down"),
  UP_DOWN("up, down"),
  RANDOM("random");

  private final String title;

  Course(String title) {
    this.title = title;
  }

  public String title() {
    return title;
  }
}
