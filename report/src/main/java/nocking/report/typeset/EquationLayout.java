package nocking.report.typeset;

import java.util.List;

/**
 * A typeset line.
 *
 * @param ascent from the top to the baseline
 */
public record EquationLayout(
    double width, double ascent, double descent, List<Glyphs> glyphs, List<Rule> rules) {
  public double height() {
    return ascent + descent;
  }
}
