package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.diagnosis.Diagnostician;
import nocking.diagnosis.Explanation;
import nocking.diagnosis.MeasuredValue;
import nocking.diagnosis.Ranking;
import nocking.fault.Fault;
import nocking.fault.FaultCatalogue;
import nocking.fault.FaultyPath;
import nocking.fault.Subject;
import nocking.prior.FaultKind;
import nocking.prior.PriorWeights;
import nocking.wiring.Meter;
import nocking.wiring.Place;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Whatever the catalogue holds is found again from its own readings, also near a rail. */
@Tag("campaign")
class OwnReadingsTest {
  private static final double[] INPUTS = {0.1, 0.5, 0.9};

  @Test
  void everyFaultExplainsItsOwnReadings() {
    List<String> missed =
        Hatchery.book(Hatchery.SEED).channels().parallelStream()
            .flatMap(c -> missed(c).stream())
            .toList();
    assertThat(missed).isEmpty();
  }

  private static List<String> missed(Channel c) {
    Subject subject =
        Analysis.of(c, Hatchery.book(Hatchery.SEED).cards()).wiring().subject().orElseThrow();
    var engine = Diagnostician.of(subject, PriorWeights.USUAL);
    var missed = new ArrayList<String>();
    for (Fault f : FaultCatalogue.of(subject)) {
      if (f.kind().loose()) continue;
      // Away from the middle of the range, where the engine has solved no degree beforehand.
      Fault at = f.graded() ? f.withSeverity(f.kind().severity(0.537)) : f;
      if (f.kind() == FaultKind.GROUND_OFFSET) at = f.withSeverity(0.05);
      Ranking r = engine.rank(readings(subject, engine, at));
      Explanation own = r.of(f).orElseThrow();
      if (!own.fits() || r.noneFits()) {
        missed.add("%s: %s, misfit %.1f".formatted(c.tag(), at.says(), own.misfit()));
      }
    }
    return missed;
  }

  private static List<MeasuredValue> readings(Subject subject, Diagnostician engine, Fault f) {
    var list = new ArrayList<MeasuredValue>();
    for (double share : INPUTS) {
      double x = subject.channel().definition().working().at(share);
      FaultyPath path = FaultyPath.of(subject, f, x);
      for (Place p : engine.places()) {
        FaultyPath.Reading r = path.read(p, Meter.HAND_HELD.inputResistance());
        if (!r.floats() && !Double.isNaN(r.value())) {
          list.add(MeasuredValue.of(p, x, r.value()));
        }
      }
    }
    return list;
  }
}
