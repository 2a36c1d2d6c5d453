package nocking.bench.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import nocking.bench.instrument.Reference;
import nocking.bench.simulated.Scene;
import nocking.quantity.Unit;
import nocking.run.Instrument;
import nocking.run.Instrument.Language;
import nocking.run.RunPlan;
import org.junit.jupiter.api.Test;

/** Who is asked for what. */
class RigTest {
  private final List<String> told = new ArrayList<>();

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
}
