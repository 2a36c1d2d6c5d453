package nocking.app.stage.condition;

import javafx.scene.Group;
import javafx.scene.Node;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import nocking.element.Element;
import nocking.element.Field;
import nocking.parts.Network;
import nocking.quantity.Numbers;
import nocking.stage.BridgeRectifier;
import nocking.stage.Clamp;
import nocking.stage.DifferenceAmp;
import nocking.stage.Divider;
import nocking.stage.Follower;
import nocking.stage.FourResistorAmp;
import nocking.stage.InputPull;
import nocking.stage.InstrumentationAmp;
import nocking.stage.InvertingAmp;
import nocking.stage.InvertingSummer;
import nocking.stage.NonInvertingAmp;
import nocking.stage.OffsetAdder;
import nocking.stage.PullDown;
import nocking.stage.PullUp;
import nocking.stage.RcFilter;
import nocking.stage.ReferenceBlend;
import nocking.stage.SeriesResistor;
import nocking.stage.Shunt;
import nocking.stage.Stage;
import nocking.stage.WheatstoneBridge;

/**
 * A small circuit of one stage with its values: rectangles for resistors, a triangle for an
 * amplifier (IEC 60617). Input on the left, output on the right.
 */
final class Schematic extends Pane {
  private static final double WIDTH = 262;
  private static final double HEIGHT = 138;
  private static final double TOP = 16;
  private static final double MID = 58;
  private static final double GROUND = 108;

  private final Group drawing = new Group();

  Schematic() {
    getStyleClass().add("schematic");
    setMinSize(WIDTH, HEIGHT);
    setPrefSize(WIDTH, HEIGHT);
    setMaxSize(WIDTH, HEIGHT);
    drawing.setTranslateY(7);
    getChildren().add(drawing);
    setId("schematic");
  }

  void show(Stage s) {
    drawing.getChildren().clear();
    setAccessibleText("Circuit of the " + s.title() + ": " + s.summary());
    switch (s) {
      case Divider d -> {
        terminal(8, MID, "in");
        across(30, MID, 118, label(d, "R1"));
        wire(118, MID, 240, MID);
        joint(140, MID);
        down(140, MID, GROUND, label(d, "R2"));
        ground(140, GROUND);
        terminal(240, MID, "out");
      }
      case SeriesResistor r -> series(label(r, "Rx"));
      case RcFilter f -> {
        terminal(8, MID, "in");
        across(30, MID, 118, label(f, "R"));
        wire(118, MID, 240, MID);
        joint(140, MID);
        capacitor(140, MID, GROUND, Numbers.compact(f.capacitance().number(), "F", 3));
        ground(140, GROUND);
        terminal(240, MID, "out");
      }
      case Clamp c -> {
        terminal(8, MID, "in");
        across(30, MID, 118, label(c, "Rc"));
        wire(118, MID, 240, MID);
        joint(150, MID);
        diode(150, MID, TOP + 4, volts(c.high().number()));
        diode(150, GROUND - 2, MID, volts(c.low().number()));
        terminal(240, MID, "out");
      }
      case PullUp p -> {
        supply(120, TOP, volts(p.supply().number()));
        down(120, TOP, MID, label(p, "Rp"));
        joint(120, MID);
        down(120, MID, GROUND, "sensor");
        ground(120, GROUND);
        wire(120, MID, 240, MID);
        terminal(240, MID, "out");
      }
      case PullDown p -> {
        supply(120, TOP, volts(p.supply().number()));
        down(120, TOP, MID, "sensor");
        joint(120, MID);
        down(120, MID, GROUND, label(p, "Rp"));
        ground(120, GROUND);
        wire(120, MID, 240, MID);
        terminal(240, MID, "out");
      }
      case WheatstoneBridge b -> {
        supply(120, TOP, volts(b.excitation().number()));
        wire(60, TOP, 190, TOP);
        down(60, TOP, MID, label(b, "R1"));
        down(60, MID, GROUND, "sensor");
        down(190, TOP, MID, label(b, "R2"));
        down(190, MID, GROUND, label(b, "R3"));
        joint(60, MID);
        joint(190, MID);
        wire(60, MID, 90, MID);
        wire(160, MID, 190, MID);
        terminal(96, MID, "+");
        terminal(154, MID, "−");
        wire(60, GROUND, 190, GROUND);
        ground(120, GROUND);
      }
      case Shunt r -> {
        terminal(8, MID, "loop");
        wire(14, MID, 240, MID);
        joint(120, MID);
        down(120, MID, GROUND, label(r, "Rb"));
        ground(120, GROUND);
        terminal(240, MID, "out");
      }
      case OffsetAdder o -> {
        terminal(8, MID, "in");
        across(30, MID, 118, label(o, "R1"));
        wire(118, MID, 240, MID);
        joint(140, MID);
        if (o.from().number() == 0) {
          down(140, MID, GROUND, label(o, "R2"));
          ground(140, GROUND);
        } else {
          supply(140, TOP, volts(o.from().number()));
          down(140, TOP, MID, label(o, "R2"));
        }
        terminal(240, MID, "out");
      }
      case InputPull p -> {
        terminal(8, MID, "in");
        wire(14, MID, 240, MID);
        joint(130, MID);
        if (p.towards().number() == 0) {
          down(130, MID, GROUND, label(p, "Rh"));
          ground(130, GROUND);
        } else {
          supply(130, TOP, volts(p.towards().number()));
          down(130, TOP, MID, label(p, "Rh"));
        }
        terminal(240, MID, "out");
      }
      case ReferenceBlend b -> {
        terminal(8, TOP + 6, "in");
        wire(14, TOP + 6, 170, TOP + 6);
        down(170, TOP + 6, 96, label(b, "RB"));
        wiper(170, 42, percent(b.blendWiper().number()));
        wire(84, 96, 170, 96);
        supply(30, 44, volts(b.supply().number()));
        down(30, 44, GROUND, label(b, "RA"));
        wiper(30, 92, percent(b.referenceWiper().number()));
        wire(46, 92, 84, 92);
        wire(84, 92, 84, 96);
        ground(30, GROUND);
      }
      case BridgeRectifier r -> {
        terminal(8, MID, "~");
        wire(14, MID, 34, MID);
        rectifier(34, MID - 16, 44, 32);
        wire(78, MID, 240, MID);
        joint(120, MID);
        capacitor(120, MID, GROUND, Numbers.compact(r.capacitance().number(), "F", 3));
        ground(120, GROUND);
        if (r.bleeder() != null) {
          joint(180, MID);
          down(180, MID, GROUND, label(r, "Rbl"));
          ground(180, GROUND);
        }
        terminal(240, MID, "out");
      }
      case Follower f -> {
        amplifier(120, MID, volts(f.railHigh().number()), volts(f.railLow().number()));
        terminal(8, MID + 12, "in");
        wire(14, MID + 12, 120, MID + 12);
        wire(100, MID - 12, 120, MID - 12);
        wire(100, MID - 12, 100, TOP);
        wire(100, TOP, 200, TOP);
        wire(200, TOP, 200, MID);
        out();
      }
      case NonInvertingAmp a -> {
        amplifier(120, MID, "", "");
        terminal(8, MID + 12, "in");
        wire(14, MID + 12, 120, MID + 12);
        feedback(label(a, "Rf"));
        lower(label(a, "Rg"), a.reference().number());
        out();
      }
      case InvertingAmp a -> {
        amplifier(120, MID, "", "");
        inverting(label(a, "Rf"), label(a, "Rg"));
        plus(volts(a.reference().number()));
        out();
      }
      case InvertingSummer a -> {
        amplifier(120, MID, "", "");
        inverting(label(a, "Rf"), label(a, "Rg"));
        plus("0 V");
        wire(92, MID - 12, 92, GROUND - 6);
        across(20, GROUND - 6, 92, label(a, "Ro"));
        terminal(8, GROUND - 6, volts(a.reference().number()));
        out();
      }
      case DifferenceAmp a ->
          difference(
              label(a, "Rg"),
              label(a, "Rf"),
              label(a, "Rg"),
              label(a, "Rf"),
              volts(a.offset().number()),
              volts(a.virtualGround().number()));
      case FourResistorAmp a ->
          difference(
              label(a, "R1"),
              label(a, "R2"),
              label(a, "R3"),
              label(a, "R4"),
              volts(a.offset().number()),
              volts(a.virtualGround().number()));
      case InstrumentationAmp a -> {
        amplifier(120, MID, "", "");
        terminal(8, MID + 12, "in");
        wire(14, MID + 12, 120, MID + 12);
        terminal(70, MID - 12, volts(a.minus().number()));
        wire(76, MID - 12, 120, MID - 12);
        text(126, MID + 44, label(a, "Rg"), false);
        wire(140, MID + 12, 140, MID + 34);
        text(150, MID - 24, "onto " + volts(a.reference().number()), false);
        out();
      }
    }
  }

  private void difference(
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

  private void feedback(String value) {
    joint(100, MID - 12);
    wire(100, MID - 12, 120, MID - 12);
    wire(100, MID - 12, 100, TOP);
    across(100, TOP, 200, value);
    wire(200, TOP, 200, MID);
  }

  private void lower(String value, double reference) {
    wire(60, MID - 12, 100, MID - 12);
    wire(60, MID - 12, 60, MID + 24);
    down(60, MID + 20, GROUND, value);
    if (reference == 0) ground(60, GROUND);
    else text(44, GROUND + 14, volts(reference), false);
  }

  private void inverting(String feedback, String input) {
    terminal(8, MID - 12, "in");
    across(22, MID - 12, 92, input);
    wire(92, MID - 12, 120, MID - 12);
    joint(100, MID - 12);
    wire(100, MID - 12, 100, TOP);
    across(100, TOP, 200, feedback);
    wire(200, TOP, 200, MID);
  }

  private void plus(String value) {
    wire(104, MID + 12, 120, MID + 12);
    terminal(100, MID + 12, value);
  }

  private void out() {
    wire(172, MID, 240, MID);
    terminal(240, MID, "out");
  }

  private void series(String value) {
    terminal(8, MID, "in");
    wire(14, MID, 70, MID);
    across(70, MID, 170, value);
    wire(170, MID, 240, MID);
    terminal(240, MID, "out");
  }

  private static String label(Element e, String symbol) {
    Field f = e.field(symbol);
    return symbol + " " + Network.code(e.value(f).number());
  }

  private static String percent(double share) {
    return Numbers.trimmed(100 * share, 3) + " %";
  }

  private static String volts(double v) {
    return v == 0 ? "0 V" : Numbers.compact(v, "V", 4).replace('-', '−');
  }

  private void add(Node n, String style) {
    n.getStyleClass().add(style);
    drawing.getChildren().add(n);
  }

  private void wire(double x1, double y1, double x2, double y2) {
    add(new Line(x1, y1, x2, y2), "wire");
  }

  private void joint(double x, double y) {
    add(new Circle(x, y, 2.4), "joint");
  }

  private void terminal(double x, double y, String name) {
    add(new Circle(x + 3, y, 3), "terminal");
    boolean right = x > WIDTH / 2;
    text(right ? x - 8 : x - 2, y - 7, name, false);
  }

  private void text(double x, double y, String words, boolean centred) {
    var t = new Text(words);
    double width = t.getLayoutBounds().getWidth() * 0.9;
    t.setX(centred ? x - width / 2 : Math.max(0, Math.min(x, WIDTH - width - 2)));
    t.setY(y);
    add(t, "value");
  }

  private void across(double x1, double y, double x2, String value) {
    double middle = (x1 + x2) / 2;
    wire(x1, y, middle - 17, y);
    wire(middle + 17, y, x2, y);
    add(new Rectangle(middle - 17, y - 5, 34, 10), "part");
    text(middle, y - 8, value, true);
  }

  private void down(double x, double y1, double y2, String value) {
    double middle = (y1 + y2) / 2;
    double half = Math.min(14, (y2 - y1) / 2 - 3);
    wire(x, y1, x, middle - half);
    wire(x, middle + half, x, y2);
    add(new Rectangle(x - 5, middle - half, 10, 2 * half), "part");
    text(x + 9, middle + 4, value, false);
  }

  private void wiper(double x, double y, String value) {
    wire(x + 5, y, x + 16, y);
    add(new Polygon(x + 5, y, x + 11, y - 3, x + 11, y + 3), "joint");
    if (x > WIDTH / 2) {
      wire(x + 16, y, 240, y);
      terminal(240, y, "out");
      text(x - 42, y + 4, value, false);
    } else {
      text(x + 20, y + 12, value, false);
    }
  }

  private void capacitor(double x, double y1, double y2, String value) {
    double middle = (y1 + y2) / 2;
    wire(x, y1, x, middle - 3);
    wire(x, middle + 3, x, y2);
    add(new Line(x - 9, middle - 3, x + 9, middle - 3), "plate");
    add(new Line(x - 9, middle + 3, x + 9, middle + 3), "plate");
    text(x + 13, middle + 4, value, false);
  }

  /** Conducts upwards, from {@code y1} to {@code y2} above it. */
  private void diode(double x, double y1, double y2, String value) {
    double middle = (y1 + y2) / 2;
    wire(x, y1, x, y2);
    add(new Polygon(x - 6, middle + 5, x + 6, middle + 5, x, middle - 5), "joint");
    add(new Line(x - 6, middle - 5, x + 6, middle - 5), "plate");
    text(x + 10, middle + 4, value, false);
  }

  private void rectifier(double x, double y, double w, double h) {
    add(new Rectangle(x, y, w, h), "part");
    wire(x, y + h, x + w, y);
    text(x + 8, y + 14, "~", false);
    text(x + w - 16, y + h - 6, "=", false);
  }

  private void amplifier(double x, double y, String high, String low) {
    add(new Polygon(x, y - 26, x, y + 26, x + 52, y), "part");
    text(x + 6, y - 8, "−", false);
    text(x + 6, y + 17, "+", false);
    if (!high.isEmpty()) text(x + 24, y - 20, high, false);
    if (!low.isEmpty()) text(x + 24, y + 30, low, false);
  }

  private void ground(double x, double y) {
    add(new Line(x - 8, y, x + 8, y), "plate");
    add(new Line(x - 5, y + 3, x + 5, y + 3), "plate");
    add(new Line(x - 2, y + 6, x + 2, y + 6), "plate");
  }

  private void supply(double x, double y, String volts) {
    add(new Line(x - 8, y, x + 8, y), "plate");
    text(x, y - 4, volts, true);
  }
}
