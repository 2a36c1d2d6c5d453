package nocking.wiring;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.List;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Pins, places and what is written down of them. */
class WiringTest {

  /** The order is the point: make, check without power, then with it. */
  @Test
  void stepsComeInTheOrderOfTheirPhases() {
    List<WireStep.Phase> phases = WireStep.ALL.stream().map(WireStep::phase).toList();
    assertThat(phases).isSorted().containsAll(List.of(WireStep.Phase.values()));
    assertThat(WireStep.ALL).allSatisfy(s -> assertThat(s.text()).endsWith("."));
    List<String> after =
        WireStep.ALL.stream()
            .filter(s -> s.phase() == WireStep.Phase.AFTER)
            .map(WireStep::text)
            .toList();
    assertThat(after.getFirst()).startsWith("Ground first");
    assertThat(Arrays.stream(WireStep.Phase.values()).map(WireStep.Phase::title))
        .doesNotHaveDuplicates();
  }

  @ParameterizedTest
  @CsvSource({
    "green/yellow, 2",
    "Grey, 1",
    "gray, 1",
    "dark blue, 1",
    "white-black-red, 2",
    "none, 0",
    "'', 0"
  })
  void coloursAreReadFromFreeText(String text, int colours) {
    assertThat(WireColour.of(text)).hasSize(colours).allMatch(c -> c.matches("#[0-9A-F]{6}"));
  }

  @Test
  void theGroundColourComesFirst() {
    assertThat(WireColour.of("green/yellow").getFirst())
        .isEqualTo(WireColour.of("green").getFirst());
    assertThat(WireColour.of("grey")).isEqualTo(WireColour.of("gray"));
  }

  /** A place is written as a key in column files, and read back from it. */
  @ParameterizedTest
  @EnumSource(Place.Kind.class)
  void placesAreReadFromTheirKeys(Place.Kind kind) {
    Place place = kind.numbered() ? Place.of(kind, 3) : Place.of(kind);
    assertThat(Place.ofKey(place.key())).isEqualTo(place);
    assertThat(place.title()).isNotBlank();
    Unit kPa = Unit.of("kPa");
    assertThat(place.unit(kPa).equals(kPa)).isEqualTo(place.equals(Place.DISPLAY));
  }

  @Test
  void anUnknownPlaceIsNamed() {
    assertThatThrownBy(() -> Place.ofKey("roof"))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("roof");
  }

  @Test
  void whatWasMeasuredBetweenOldPinsGoesWithThem() {
    WirePlan plan = WirePlan.DEFAULT.withPair(0, 1, v(1200)).withPair(0, 2, v(5));
    assertThat(plan.pair(0, 1)).contains(v(1200));
    assertThat(plan.withPair(0, 1, null).pairs()).hasSize(1);
    assertThat(plan.withPair(0, 1, v(7)).pair(0, 1)).contains(v(7));
    assertThat(plan.withPins(plan.pins()).pairs()).isEmpty();
    assertThat(plan.withSupply(v(5)).pairs()).isEqualTo(plan.pairs());
    assertThat(plan.indexOf(Pin.Function.SIGNAL)).isEqualTo(2);
    assertThat(plan.withPins(plan.pins().subList(0, 2)).indexOf(Pin.Function.SIGNAL)).isEqualTo(-1);
    assertThatThrownBy(() -> plan.withSupply(v(0))).isInstanceOf(QuantityException.class);
  }

  @Test
  void aPinKeepsWhatWasFoundOnIt() {
    Pin pin = Pin.of(Pin.Function.SIGNAL, "white", "J1-3");
    Pin measured =
        pin.withPosition("A1").withLength(v(12)).withMeasured(v(0.59)).withContinuity(v(0.4));
    assertThat(measured.withWire("blue").measured()).isEqualTo(v(0.59));
    assertThat(measured.withTerminal("J2-1").continuity()).isEqualTo(v(0.4));
    assertThat(measured.position()).isEqualTo("A1");
    // Longer wires may have more resistance, and a plug always has some.
    assertThat(pin.withLength(v(100)).mostContinuity()).isGreaterThan(pin.mostContinuity());
    assertThat(pin.mostContinuity()).isPositive();
  }

  /** 0.40 … 0.46 V is a jumping reading, and a single one is not. */
  @Test
  void whatWasSeenMayJump() {
    Observation jumping = Observation.typed(Place.testPoint(1), v(5), "0.40 … 0.46 V", Unit.VOLT);
    assertThat(jumping.jumping()).isTrue();
    assertThat(jumping.value().number()).isEqualTo(0.4);
    assertThat(jumping.until().number()).isEqualTo(0.46);
    Observation steady = Observation.typed(Place.testPoint(1), v(5), "430 mV", Unit.VOLT);
    assertThat(steady.jumping()).isFalse();
    assertThat(steady.value().number()).isEqualTo(0.43);
    assertThatThrownBy(() -> Observation.typed(Place.DISPLAY, v(5), "high", Unit.of("kPa")))
        .isInstanceOf(QuantityException.class);
  }

  /** Outside either limit is a fault, on it is not. */
  @Test
  void limitsCutOffWhatCanOnlyBeAFault() {
    var both = new Thresholds(v(0.25), v(4.75));
    assertThat(both.fault(0.24)).isTrue();
    assertThat(both.fault(4.76)).isTrue();
    assertThat(both.fault(0.25)).isFalse();
    assertThat(both.fault(4.75)).isFalse();
    assertThat(new Thresholds(null, v(4.75)).fault(-1)).isFalse();
    assertThat(new Thresholds(v(0.25), null).fault(99)).isFalse();
    Value low = v(5);
    assertThatThrownBy(() -> new Thresholds(low, v(4))).isInstanceOf(QuantityException.class);
  }
}
