package nocking.report.typeset;

import java.util.ArrayList;
import java.util.List;

/** A part of an equation; its baseline lies at y = 0, upwards is negative. */
record Box(double width, double ascent, double descent, List<Glyphs> glyphs, List<Rule> rules) {

  double height() {
    return ascent + descent;
  }

  /** Boxes side by side on one baseline. */
  static Box row(Box... boxes) {
    var builder = new Builder();
    double x = 0;
    for (Box b : boxes) {
      builder.put(b, x, 0);
      x += b.width;
    }
    return builder.box(x);
  }

  /** Boxes put at places. */
  static final class Builder {
    private final List<Glyphs> glyphs = new ArrayList<>();
    private final List<Rule> rules = new ArrayList<>();
    private double ascent;
    private double descent;

    Builder put(Box b, double dx, double dy) {
      b.glyphs.forEach(g -> glyphs.add(g.moved(dx, dy)));
      b.rules.forEach(r -> rules.add(r.moved(dx, dy)));
      ascent = Math.max(ascent, b.ascent - dy);
      descent = Math.max(descent, b.descent + dy);
      return this;
    }

    Builder rule(Rule r) {
      rules.add(r);
      ascent = Math.max(ascent, -Math.min(r.y1(), r.y2()));
      descent = Math.max(descent, Math.max(r.y1(), r.y2()));
      return this;
    }

    Box box(double width) {
      return new Box(width, ascent, descent, List.copyOf(glyphs), List.copyOf(rules));
    }
  }
}
