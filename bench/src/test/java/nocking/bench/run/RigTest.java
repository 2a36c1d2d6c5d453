package nocking.bench.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import nocking.bench.instrument.Reference;
import nocking.bench.simulated.Scene;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Corrections;
import nocking.run.Instrument;
import nocking.run.Instrument.Language;
import nocking.run.RunPlan;
import org.junit.jupiter.api.Test;

/** Who is asked for what. */
class RigTest {
  private final List<String> told = new ArrayList<>();
  private final List<Double> set = new ArrayList<>();

  /** Answers what stands for its address, and writes down what it is told. */
  private Reference at(String address, Map<String, Double> readings) {
    return new Reference() {
      @Override
      public String identity() {
        return "";
      }

      @Override
      public double read() {
        return readings.get(address);
      }

      @Override
      public void bringTo(double setPoint) {
        told.add(address);
        set.add(setPoint);
      }

      @Override
      public void close() {
        // Nothing was opened.
      }
    };
  }

  /**
   * Reference and meter may be called alike: the volts of one are never the quantity of the other.
   */
  @Test
  void instrumentsAreToldApartByWhatTheyAreFor() throws Exception {
    Instrument dmm = Instrument.of("DMM", Language.SCPI, "old:1", "READ?", Unit.VOLT);
    Scene pump = Scene.named("pump").orElseThrow();
    Instrument gauge =
        Instrument.of("DMM", Language.SCPI, "old:2", "READ?", Unit.of(pump.stimulus().unit()))
            .withSet("SOUR %s");
    RunPlan plan = Plans.of(pump, gauge, List.of(dmm), 0, 30);
    Map<String, Double> readings = Map.of("gauge:1", 30.0, "meter:2", 1.5);
    try (var rig = new Rig(plan, i -> at(i.address(), readings))) {
      rig.movedReference("gauge:1");
      rig.movedMeter(0, "meter:2");
      assertThat(rig.applied()).isEqualTo(30);
      assertThat(rig.raw()).containsExactly(1.5);
      rig.bringTo(30);
      assertThat(told).containsExactly("gauge:1");
    }
  }

  private static Instrument asked(String name, String address, Unit unit) {
    return Instrument.of(name, Language.SCPI, address, "READ?", unit);
  }

  /**
   * What an instrument shows is corrected by its certificate; what it is told is, the other way.
   */
  @Test
  void certificatesCorrectWhatIsShown() throws Exception {
    Scene pump = Scene.named("pump").orElseThrow();
    Instrument gauge =
        asked("gauge", "gauge:1", Unit.of("psi"))
            .withSet("SOUR %s")
            .withCorrections(Corrections.parse("0.1=0; 10.3=10", Unit.of("psi")));
    Instrument meter =
        asked("meter", "meter:2", Unit.of("mV"))
            .withCorrections(Corrections.parse("1502=1500", Unit.of("mV")));
    RunPlan plan = Plans.of(pump, gauge, List.of(meter), 0, 30);
    Map<String, Double> readings = Map.of("gauge:1", 5.2, "meter:2", 1502.0);
    try (var rig = new Rig(plan, i -> at(i.address(), readings))) {
      // NIST SP 811: 1 psi is 6.894 757 kPa.
      assertThat(rig.applied()).isCloseTo(5 * 6.894757, within(1e-5));
      assertThat(rig.raw().getFirst()).isCloseTo(1.5, within(1e-12));
      rig.bringTo(5 * 6.894757);
      assertThat(set.getFirst()).isCloseTo(5.2, within(1e-6));
    }
    RunPlan beyond = plan.withSetPoints(List.of(Value.of(30), Value.of(80)));
    assertThatThrownBy(beyond::requireUnits)
        .hasMessage(
            "the certificate of gauge is for 0 … 10 psi, and the set point 80 kPa lies beside it");
  }

  /** Who reads by eye types in the unit of the plan, and types what is shown. */
  @Test
  void whatIsReadByEyeIsCorrectedToo() throws Exception {
    Scene pump = Scene.named("pump").orElseThrow();
    Instrument glass =
        Instrument.byHand("glass", Unit.of("psi"))
            .withCorrections(Corrections.parse("0.1=0; 10.3=10", Unit.of("psi")));
    RunPlan plan = Plans.of(pump, glass, List.of(asked("meter", "meter:2", Unit.VOLT)), 0, 30);
    try (var rig = new Rig(plan, i -> at(i.address(), Map.of("meter:2", 1.5)))) {
      rig.hand().type(5.2 * 6.894757);
      assertThat(rig.applied()).isCloseTo(5 * 6.894757, within(1e-5));
    }
  }
}
