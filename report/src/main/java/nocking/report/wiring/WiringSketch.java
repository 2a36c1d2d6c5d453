package nocking.report.wiring;

import java.util.ArrayList;
import java.util.List;
import nocking.channel.Channel;
import nocking.fault.PinExpectation;
import nocking.quantity.Numbers;
import nocking.report.wiring.Sketch.Anchor;
import nocking.report.wiring.Sketch.Box;
import nocking.report.wiring.Sketch.Role;
import nocking.report.wiring.Sketch.Shape;
import nocking.report.wiring.Sketch.Wire;
import nocking.report.wiring.Sketch.Words;
import nocking.wiring.Pin;
import nocking.wiring.WireColour;

/** A channel's wires as they are: sensor, connector, wires in their colours, terminals, volts. */
public final class WiringSketch {
  private static final double ROW = 44;
  private static final double TOP = 20;
  private static final double WIDTH = 740;
  private static final double SENSOR = 130;
  private static final double CONNECTOR = 176;
  private static final double RECEIVER = 452;
  private static final double TERMINAL = 496;

  private WiringSketch() {}

  /**
   * @param expected what every pin must read, the pins of the plan among them
   */
  public static Sketch of(Channel c, List<PinExpectation> expected) {
    List<Pin> pins = c.wiring().plan().pins();
    double height = TOP + Math.max(1, pins.size()) * ROW + 14;
    var shapes = new ArrayList<Shape>();
    shapes.add(new Box(Role.BODY, 8, TOP, SENSOR - 8, height - TOP - 14));
    String sensor = c.design().sensor() == null ? "Sensor" : c.design().sensor().title();
    shapes.add(new Words(Role.TITLE, 8 + (SENSOR - 8) / 2, TOP + 18, sensor, Anchor.MIDDLE));
    shapes.add(new Words(Role.QUIET, 8 + (SENSOR - 8) / 2, TOP + 34, c.tag(), Anchor.MIDDLE));
    shapes.add(new Box(Role.EDGE, SENSOR, TOP, CONNECTOR - SENSOR, height - TOP - 14));
    shapes.add(new Box(Role.EDGE, RECEIVER, TOP, TERMINAL - RECEIVER, height - TOP - 14));
    shapes.add(
        new Words(Role.QUIET, (SENSOR + CONNECTOR) / 2, TOP - 6, "connector", Anchor.MIDDLE));
    shapes.add(
        new Words(Role.QUIET, (RECEIVER + TERMINAL) / 2, TOP - 6, "receiver", Anchor.MIDDLE));
    shapes.add(new Words(Role.QUIET, TERMINAL + 14, TOP - 6, "must read, at rest", Anchor.START));
    for (int i = 0; i < pins.size(); i++) row(shapes, i, pins.get(i), of(expected, i));
    joints(shapes, c.wiring().plan().joints(), height);
    return new Sketch(WIDTH, height, shapes);
  }

  /** The places between the ends, across all wires. */
  private static void joints(List<Shape> shapes, List<String> names, double height) {
    double pitch = (RECEIVER - CONNECTOR) / (names.size() + 1);
    for (int k = 0; k < names.size(); k++) {
      double x = CONNECTOR + (k + 1) * pitch;
      shapes.add(new Box(Role.EDGE, x - 3, TOP, 6, height - TOP - 14));
      shapes.add(new Words(Role.QUIET, x, TOP - 6, names.get(k), Anchor.MIDDLE));
    }
  }

  private static PinExpectation of(List<PinExpectation> expected, int pin) {
    return expected.stream().filter(e -> e.pin() == pin).findFirst().orElse(null);
  }

  private static void row(List<Shape> shapes, int i, Pin pin, PinExpectation e) {
    double y = TOP + i * ROW + ROW / 2;
    String position = pin.position().isBlank() ? String.valueOf(i + 1) : pin.position();
    shapes.add(new Box(Role.PIN, SENSOR + 10, y - 9, CONNECTOR - SENSOR - 20, 18));
    shapes.add(new Words(Role.NUMBER, (SENSOR + CONNECTOR) / 2, y + 4, position, Anchor.MIDDLE));
    shapes.add(new Box(Role.PIN, RECEIVER + 4, y - 9, TERMINAL - RECEIVER - 8, 18));
    shapes.add(
        new Words(Role.NUMBER, (RECEIVER + TERMINAL) / 2, y + 4, pin.terminal(), Anchor.MIDDLE));
    List<String> colours = WireColour.of(pin.wire());
    String colour = colours.isEmpty() ? "" : colours.getFirst();
    shapes.add(new Wire(CONNECTOR, y, RECEIVER, y, 6, "edge", false));
    shapes.add(new Wire(CONNECTOR, y, RECEIVER, y, 4.5, colour, false));
    if (colours.size() > 1) {
      shapes.add(new Wire(CONNECTOR, y, RECEIVER, y, 4.5, colours.get(1), true));
    }
    String name = pin.function().title();
    String wire = pin.wire().isBlank() ? "colour not noted" : pin.wire();
    String length =
        pin.length() == null ? "" : ", " + Numbers.trimmed(pin.length().number(), 3) + " m";
    shapes.add(new Words(Role.TEXT, CONNECTOR + 10, y - 8, name, Anchor.START));
    shapes.add(new Words(Role.QUIET, RECEIVER - 10, y - 8, wire + length, Anchor.END));
    shapes.add(
        new Words(
            Role.NUMBER,
            TERMINAL + 14,
            y + 1,
            e == null ? "not stated" : e.atRestSays(),
            Anchor.START));
    shapes.add(
        new Words(Role.QUIET, TERMINAL + 14, y + 15, e == null ? "" : range(e), Anchor.START));
  }

  private static String range(PinExpectation e) {
    String says = e.rangeSays();
    return says.isEmpty() ? "" : says + " over the range";
  }
}
