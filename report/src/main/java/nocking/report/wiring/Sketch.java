package nocking.report.wiring;

import java.util.List;

/**
 * A small drawing as data, for the window and for paper.
 *
 * @param width in points
 * @param height in points
 */
public record Sketch(double width, double height, List<Shape> shapes) {
  public Sketch {
    shapes = List.copyOf(shapes);
  }

  /** One thing in a drawing. */
  public sealed interface Shape {}

  /** What a shape is, for its look. */
  public enum Role {
    BODY,
    PIN,
    EDGE,
    TITLE,
    TEXT,
    QUIET,
    NUMBER
  }

  /** A rectangle with round corners. */
  public record Box(Role role, double x, double y, double w, double h) implements Shape {}

  /**
   * A straight wire.
   *
   * @param colour sRGB; empty for a colour that is not known
   * @param dashed true for a second colour along the first
   */
  public record Wire(
      double x1, double y1, double x2, double y2, double width, String colour, boolean dashed)
      implements Shape {}

  /** Words; {@code x} is their left end, their middle or their right end. */
  public record Words(Role role, double x, double y, String text, Anchor anchor) implements Shape {}

  /** Which part of the words stands at the given place. */
  public enum Anchor {
    START,
    MIDDLE,
    END
  }
}
