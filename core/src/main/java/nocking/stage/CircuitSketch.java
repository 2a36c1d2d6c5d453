package nocking.stage;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nocking.element.Element;
import nocking.quantity.Numbers;
import nocking.quantity.ResistorCode;

/**
 * A small circuit of one stage with its values, as shapes for a window or for paper: rectangles for
 * resistors, a triangle for an amplifier (IEC 60617). Input on the left, output on the right, y
 * downwards.
 */
public final class CircuitSketch {
  public static final double WIDTH = 262;
  public static final double HEIGHT = 138;

  /** Where a supply stands, the signal runs, and ground is. */
  static final double TOP = 16;

  static final double MID = 58;
  static final double GROUND = 108;

  /** What a shape is, for its look. */
  public enum Role {
    WIRE,
    PLATE,
    PART,
    JOINT,
    TERMINAL
  }

  /** One thing in the drawing. */
  public sealed interface Shape {}

  public record Line(Role role, double x1, double y1, double x2, double y2) implements Shape {}

  public record Box(Role role, double x, double y, double width, double height) implements Shape {}

  public record Disc(Role role, double x, double y, double radius) implements Shape {}

  /** A closed area: its corners, x and y by turns. */
  public record Area(Role role, List<Double> corners) implements Shape {
    static Area of(Role role, double... corners) {
      return new Area(role, Arrays.stream(corners).boxed().toList());
    }
  }

  /**
   * Words on a base line; moved inside the drawing where they would leave it.
   *
   * @param centred true where {@code x} is their middle, else it is their left end
   */
  public record Words(double x, double y, String text, boolean centred) implements Shape {}

  private final List<Shape> shapes = new ArrayList<>();

  /** The circuit of a stage. */
  public static CircuitSketch of(Stage stage) {
    var sketch = new CircuitSketch();
    stage.sketch(sketch);
    return sketch;
  }

  public List<Shape> shapes() {
    return List.copyOf(shapes);
  }

  private void add(Shape shape) {
    shapes.add(shape);
  }

  /** A part's symbol with its value. */
  String label(Element element, String symbol) {
    return symbol + " " + ResistorCode.of(element.value(element.field(symbol)).number());
  }

  static String percent(double share) {
    return Numbers.trimmed(100 * share, 3) + " %";
  }

  static String volts(double v) {
    return v == 0 ? "0 V" : Numbers.compact(v, "V", 4).replace('-', '−');
  }

  void difference(
      String plusIn, String plusGround, String minusIn, String feedback, String off, String gnd) {
    amplifier(130, MID, "", "");
    terminal(8, MID - 12, off);
    across(34, MID - 12, 110, minusIn);
    wire(110, MID - 12, 130, MID - 12);
    joint(112, MID - 12);
    wire(112, MID - 12, 112, TOP);
    across(112, TOP, 206, feedback);
    wire(206, TOP, 206, MID);
    terminal(8, MID + 12, "in");
    across(34, MID + 12, 110, plusIn);
    wire(110, MID + 12, 130, MID + 12);
    joint(112, MID + 12);
    down(112, MID + 12, GROUND + 4, plusGround);
    text(100, GROUND + 18, gnd, false);
    wire(182, MID, 240, MID);
    joint(206, MID);
    terminal(240, MID, "out");
  }

  void feedback(String value) {
    joint(100, MID - 12);
    wire(100, MID - 12, 120, MID - 12);
    wire(100, MID - 12, 100, TOP);
    across(100, TOP, 200, value);
    wire(200, TOP, 200, MID);
  }

  void lower(String value, double reference) {
    wire(60, MID - 12, 100, MID - 12);
    wire(60, MID - 12, 60, MID + 24);
    down(60, MID + 20, GROUND, value);
    if (reference == 0) ground(60, GROUND);
    else text(44, GROUND + 14, volts(reference), false);
  }

  void inverting(String feedback, String input) {
    terminal(8, MID - 12, "in");
    across(22, MID - 12, 92, input);
    wire(92, MID - 12, 120, MID - 12);
    joint(100, MID - 12);
    wire(100, MID - 12, 100, TOP);
    across(100, TOP, 200, feedback);
    wire(200, TOP, 200, MID);
  }

  void plus(String value) {
    wire(104, MID + 12, 120, MID + 12);
    terminal(100, MID + 12, value);
  }

  void out() {
    wire(172, MID, 240, MID);
    terminal(240, MID, "out");
  }

  void series(String value) {
    terminal(8, MID, "in");
    wire(14, MID, 70, MID);
    across(70, MID, 170, value);
    wire(170, MID, 240, MID);
    terminal(240, MID, "out");
  }

  void wire(double x1, double y1, double x2, double y2) {
    add(new Line(Role.WIRE, x1, y1, x2, y2));
  }

  void joint(double x, double y) {
    add(new Disc(Role.JOINT, x, y, 2.4));
  }

  void terminal(double x, double y, String name) {
    add(new Disc(Role.TERMINAL, x + 3, y, 3));
    boolean right = x > WIDTH / 2;
    text(right ? x - 8 : x - 2, y - 7, name, false);
  }

  void text(double x, double y, String words, boolean centred) {
    add(new Words(x, y, words, centred));
  }

  void across(double x1, double y, double x2, String value) {
    double middle = (x1 + x2) / 2;
    wire(x1, y, middle - 17, y);
    wire(middle + 17, y, x2, y);
    add(new Box(Role.PART, middle - 17, y - 5, 34, 10));
    text(middle, y - 8, value, true);
  }

  void down(double x, double y1, double y2, String value) {
    double middle = (y1 + y2) / 2;
    double half = Math.min(14, (y2 - y1) / 2 - 3);
    wire(x, y1, x, middle - half);
    wire(x, middle + half, x, y2);
    add(new Box(Role.PART, x - 5, middle - half, 10, 2 * half));
    text(x + 9, middle + 4, value, false);
  }

  void wiper(double x, double y, String value) {
    wire(x + 5, y, x + 16, y);
    add(Area.of(Role.JOINT, x + 5, y, x + 11, y - 3, x + 11, y + 3));
    if (x > WIDTH / 2) {
      wire(x + 16, y, 240, y);
      terminal(240, y, "out");
      text(x - 42, y + 4, value, false);
    } else {
      text(x + 20, y + 12, value, false);
    }
  }

  void capacitor(double x, double y1, double y2, String value) {
    double middle = (y1 + y2) / 2;
    wire(x, y1, x, middle - 3);
    wire(x, middle + 3, x, y2);
    add(new Line(Role.PLATE, x - 9, middle - 3, x + 9, middle - 3));
    add(new Line(Role.PLATE, x - 9, middle + 3, x + 9, middle + 3));
    text(x + 13, middle + 4, value, false);
  }

  /** Conducts upwards, from {@code y1} to {@code y2} above it. */
  void diode(double x, double y1, double y2, String value) {
    double middle = (y1 + y2) / 2;
    wire(x, y1, x, y2);
    add(Area.of(Role.JOINT, x - 6, middle + 5, x + 6, middle + 5, x, middle - 5));
    add(new Line(Role.PLATE, x - 6, middle - 5, x + 6, middle - 5));
    text(x + 10, middle + 4, value, false);
  }

  void rectifier(double x, double y, double w, double h) {
    add(new Box(Role.PART, x, y, w, h));
    wire(x, y + h, x + w, y);
    text(x + 8, y + 14, "~", false);
    text(x + w - 16, y + h - 6, "=", false);
  }

  void amplifier(double x, double y, String high, String low) {
    add(Area.of(Role.PART, x, y - 26, x, y + 26, x + 52, y));
    text(x + 6, y - 8, "−", false);
    text(x + 6, y + 17, "+", false);
    if (!high.isEmpty()) text(x + 24, y - 20, high, false);
    if (!low.isEmpty()) text(x + 24, y + 30, low, false);
  }

  void ground(double x, double y) {
    add(new Line(Role.PLATE, x - 8, y, x + 8, y));
    add(new Line(Role.PLATE, x - 5, y + 3, x + 5, y + 3));
    add(new Line(Role.PLATE, x - 2, y + 6, x + 2, y + 6));
  }

  void supply(double x, double y, String volts) {
    add(new Line(Role.PLATE, x - 8, y, x + 8, y));
    text(x, y - 4, volts, true);
  }
}
