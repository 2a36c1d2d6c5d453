package nocking.stage;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import nocking.element.Field;
import nocking.quantity.ResistorCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** The small circuits show what the stage is made of. */
class CircuitSketchTest {

  private static List<String> words(Stage s) {
    return CircuitSketch.of(s).shapes().stream()
        .filter(CircuitSketch.Words.class::isInstance)
        .map(w -> ((CircuitSketch.Words) w).text())
        .toList();
  }

  /** No resistor that counts is missing from the drawing, and each stands there with its value. */
  @ParameterizedTest
  @MethodSource("nocking.stage.Stage#kinds")
  void everyResistorIsDrawnWithItsValue(Stage s) {
    for (Field f : s.fields()) {
      boolean resistor = f.parameter().unit().equals("ohm") && s.value(f) != null;
      // The law of an instrumentation amplifier has a constant in ohms that is no part.
      if (!resistor || f.symbol().equals("b")) continue;
      String label = f.symbol() + " " + ResistorCode.of(s.value(f).number());
      assertThat(words(s)).as(s.title()).contains(label);
    }
  }

  @ParameterizedTest
  @MethodSource("nocking.stage.Stage#kinds")
  void nothingIsDrawnOutsideThePaper(Stage s) {
    assertThat(CircuitSketch.of(s).shapes()).hasSizeGreaterThan(5);
    for (CircuitSketch.Shape shape : CircuitSketch.of(s).shapes()) {
      switch (shape) {
        case CircuitSketch.Line l -> {
          inside(l.x1(), l.y1());
          inside(l.x2(), l.y2());
        }
        case CircuitSketch.Box b -> {
          inside(b.x(), b.y());
          inside(b.x() + b.width(), b.y() + b.height());
        }
        case CircuitSketch.Disc d -> inside(d.x() + d.radius(), d.y() - d.radius());
        case CircuitSketch.Area a -> {
          for (int i = 0; i < a.corners().size(); i += 2) {
            inside(a.corners().get(i), a.corners().get(i + 1));
          }
        }
        case CircuitSketch.Words w -> inside(w.x(), w.y());
      }
    }
  }

  private static void inside(double x, double y) {
    assertThat(x).isBetween(0.0, CircuitSketch.WIDTH);
    assertThat(y).isBetween(0.0, CircuitSketch.HEIGHT);
  }

  /** What can be asked for is what the stage has: a span where it has a gain, else one resistor. */
  @Test
  void everyStageSaysWhichOfItsPartsCanBeChosen() {
    for (Stage s : Stage.kinds()) {
      switch (s.parts()) {
        case GAIN_AND_SHIFT -> assertThat(s.rails()).as(s.title()).isPresent();
        case RESISTANCE -> assertThat(s.onlyResistance()).as(s.title()).isPresent();
        case NONE -> assertThat(s.onlyResistance()).as(s.title()).isEmpty();
        default -> assertThat(s.fields()).as(s.title()).isNotEmpty();
      }
    }
    assertThat(Divider.EXAMPLE.parts().bySpan()).isTrue();
    assertThat(PullUp.EXAMPLE.parts().bySpan()).isFalse();
  }

  /** IEC 60062: the letter stands where the point would. */
  @ParameterizedTest
  @CsvSource({
    "0, 0",
    "330, 330",
    "4.7, 4.7",
    "999.9, 999.9",
    "1000, 1k",
    "4700, 4k7",
    "1.2e6, 1M2",
    "10e6, 10M",
    "5110, 5k11"
  })
  void resistancesReadAsOnTheParts(double ohms, String code) {
    assertThat(ResistorCode.of(ohms)).isEqualTo(code);
  }
}
