package nocking.report.typeset;

/**
 * A run of letters at a place.
 *
 * @param x left edge
 * @param y baseline, downwards from the top of the layout
 * @param italic true for symbols, false for numbers, functions and words
 * @param symbol symbol of the equation that it belongs to; empty for signs and numbers
 */
public record Glyphs(String text, double x, double y, double size, boolean italic, String symbol) {
  Glyphs moved(double dx, double dy) {
    return new Glyphs(text, x + dx, y + dy, size, italic, symbol);
  }
}
