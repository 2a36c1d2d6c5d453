package nocking.app.step.fit;

/** What the plot of a fit shows. */
enum FitLook {
  RESIDUALS("residuals"),
  CURVE("curve"),
  OTHER_WAY("other way");

  private final String title;

  FitLook(String title) {
    this.title = title;
  }

  String title() {
    return title;
  }
}
