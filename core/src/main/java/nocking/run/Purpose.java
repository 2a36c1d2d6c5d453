package nocking.run;

/** What a run is for. */
public enum Purpose {
  AS_FOUND("as found"),
  AS_LEFT("as left"),
  DEVELOPMENT("development");

  private final String title;

  Purpose(String title) {
    this.title = title;
  }

  public String title() {
    return title;
  }
}
