package nocking.channel;

/** What can hurt someone at this channel; each puts its caution beside the work. */
public enum Hazard {
  MAINS(
      "mains or above 50 V AC",
      "A bare divider gives no isolation: everything behind it may be live, the laptop's USB too."
          + " Prefer an isolated sensor. Licensed work under local codes."),
  SAFETY_SIGNAL(
      "a machine acts on it for safety",
      "Never shift, scale or bypass this signal without the competent person's approval and the"
          + " maker's consent."),
  PRESSURE(
      "pressure or vacuum",
      "Bleed the line before you open a fitting, use rated fittings, wear eye protection. Local"
          + " codes and the maker's limits apply."),
  HEAT(
      "heaters or hot and cold baths",
      "Disconnect power before you open a heater box; mind hot surfaces and wet hands. Local codes"
          + " apply."),
  MOVING(
      "moving parts", "Lock the machine out before you reach in. The maker's instructions apply.");

  private final String title;
  private final String caution;

  Hazard(String title, String caution) {
    this.title = title;
    this.caution = caution;
  }

  public String title() {
    return title;
  }

  public String caution() {
    return caution;
  }
}
