package nocking.datasheet;

import java.util.Optional;
import java.util.regex.Pattern;
import nocking.quantity.Dimension;

/** What a line of a datasheet can say of a sensor, in the order in which a label is tried. */
enum Fact {
  BURST("burst limit", "burst|rupture"),
  PROOF(
      "overload limit",
      "proof|over[- ]?(?:pressure|load|range)|max(?:imum|\\.)? (?:pressure|load)"),
  AMBIENT(
      "temperature that it works in, not used",
      "(?:operating|ambient|storage|compensated|media|medium|working)[a-z ]*temp|temp[a-z ]*(?:coefficient|drift)|\\bTC\\b"),
  DISSIPATION("dissipation constant", "dissipation|self[- ]?heating"),
  CLASS("tolerance", "accuracy|tolerance|(?:total )?error|non[- ]?linearity|linearity|hysteresis"),
  BETA("beta value", "\\bB\\s*\\(?\\d+\\s*/\\s*\\d+\\)?|\\bbeta\\b|β|\\bB[- ]?(?:value|constant)"),
  RESISTANCE(
      "resistance", "\\bR\\s*_?\\(?\\d+|(?:nominal |rated )?resistance at|\\bR_?25\\b|\\bR_?0\\b"),
  SOURCE("output resistance", "(?:output|source|internal) (?:resistance|impedance)"),
  SUPPLY("supply", "supply|excitation|\\bVcc\\b|\\bVs\\b|\\bVdd\\b|\\bU_?B\\b"),
  ZERO("zero", "\\bzero\\b|offset|output at"),
  SENSITIVITY("sensitivity", "sensitivity|slope|scale factor|rated output"),
  OUTPUT("output", "output|signal"),
  RANGE(
      "range",
      "range|span|measur|capacity|rated load|nominal (?:load|pressure)|full scale|travel|stroke");

  private final String title;
  private final Pattern label;

  Fact(String title, String label) {
    this.title = title;
    this.label = Pattern.compile("(?i)" + label);
  }

  String title() {
    return title;
  }

  /** The fact that a label names; empty where none does. */
  static Optional<Fact> named(String label) {
    for (Fact f : values()) {
      if (f.label.matcher(label).find()) return Optional.of(f);
    }
    return Optional.empty();
  }

  /** True where a value of this dimension can be this fact. */
  boolean takes(Dimension d) {
    return switch (this) {
      case SUPPLY -> d.equals(Dimension.VOLTAGE);
      case OUTPUT -> d.equals(Dimension.VOLTAGE) || d.equals(Dimension.CURRENT) || d.isNone();
      case BETA -> d.equals(Dimension.TEMPERATURE);
      case RESISTANCE, SOURCE -> d.equals(Dimension.RESISTANCE);
      case ZERO -> d.equals(Dimension.VOLTAGE) || d.isNone();
      case PROOF, BURST, RANGE ->
          !d.equals(Dimension.VOLTAGE)
              && !d.equals(Dimension.CURRENT)
              && !d.equals(Dimension.RESISTANCE);
      case AMBIENT, DISSIPATION, CLASS, SENSITIVITY -> true;
    };
  }
}
