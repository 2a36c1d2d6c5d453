package nocking.run;

/**
 * What surrounds a run, as the operator says it; empty where nothing was said.
 *
 * @param referencePlace depth or port of the reference, held against that of each channel
 */
public record Conditions(
    String operator, String ambient, String supply, String referencePlace, String note) {
  public static final Conditions NONE = new Conditions("", "", "", "", "");

  public Conditions {
    operator = said(operator);
    ambient = said(ambient);
    supply = said(supply);
    referencePlace = said(referencePlace);
    note = said(note);
  }

  private static String said(String s) {
    return s == null ? "" : s.strip();
  }
}
