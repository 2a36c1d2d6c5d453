package nocking.report.typeset;

/** A straight stroke: a fraction bar, or a limb of a root sign. */
public record Rule(double x1, double y1, double x2, double y2, double thickness) {
  Rule moved(double dx, double dy) {
    return new Rule(x1 + dx, y1 + dy, x2 + dx, y2 + dy, thickness);
  }
}
