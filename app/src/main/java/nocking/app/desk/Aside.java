package nocking.app.desk;

/** Views beside the stages, which look at a channel from another side. */
public enum Aside {
  DIAGNOSE("Diagnose"),
  PRACTICE("Practice");

  private final String title;

  Aside(String title) {
    this.title = title;
  }

  public String title() {
    return title;
  }
}
