package nocking.quantity;

/** Resistances as they are printed on parts (IEC 60062): 4k7, 330, 1M2. */
public final class ResistorCode {
  private static final double KILO = 1e3;
  private static final double MEGA = 1e6;

  private ResistorCode() {}

  /**
   * @param ohms at least 0; four digits below 1 kΩ, five above
   */
  public static String of(double ohms) {
    if (ohms < KILO) return Numbers.trimmed(ohms, 4);
    boolean mega = ohms >= MEGA;
    String number = Numbers.trimmed(ohms / (mega ? MEGA : KILO), 5);
    String letter = mega ? "M" : "k";
    return number.contains(".") ? number.replace(".", letter) : number + letter;
  }
}
