package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;

import nocking.analysis.Analysis;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.fault.FaultRow;
import nocking.prior.FaultKind;
import nocking.quantity.Value;
import nocking.wiring.Supplied;
import org.junit.jupiter.api.Test;

/** What hangs on a number that nobody gave is not called harmless. */
class UnknownIsNotHarmlessTest {
  private static final Book BOOK = Hatchery.book(Hatchery.SEED);

  private static FaultRow groundLead(Channel c) {
    return Analysis.of(c).wiring().faults().orElseThrow().rows().stream()
        .filter(r -> r.fault().kind() == FaultKind.GROUND_LEAD)
        .findFirst()
        .orElseThrow();
  }

  private static Channel drawing(Channel c, Double amperes) {
    Value current = amperes == null ? null : Value.of(amperes);
    return c.wiring(w -> w.withPlan(w.plan().withSupplied(new Supplied(current, null, null))));
  }

  /** 10 Ω in the ground wire of a sensor whose card does not say what it draws. */
  @Test
  void resistanceInTheGroundWireHangsOnWhatTheSensorDraws() {
    Channel c = drawing(BOOK.byTag("BL-P1").orElseThrow(), null);
    // Volts at the converter for one kPa, and those that 10 Ω make of 20 mA behind the divider.
    double perKpa = 0.04188 * 10 / 15.1;
    double at20 = 10 * 0.02 * 10 / 15.1 / perKpa;
    double at1 = at20 / 20;
    Channel between = c.define(d -> d.withTolerance(Value.of((at20 / 4 + at1) * 0.9)));
    FaultRow row = groundLead(between);
    // With the 5 mA that are taken it holds the tolerance, and says that it need not.
    assertThat(Math.abs(row.worst())).isLessThan(between.definition().toleranceOrNaN());
    assertThat(row.verdict()).isEqualTo(FaultRow.Verdict.HANGS);
    assertThat(row.note())
        .startsWith("taken with 5.0 mA of supply current, which nobody said; with 20 mA it would");
    // Said, it is what it is.
    FaultRow little = groundLead(drawing(between, 1e-3));
    assertThat(little.verdict()).isEqualTo(FaultRow.Verdict.HARMLESS);
    assertThat(little.note()).isEmpty();
    FaultRow much = groundLead(drawing(between, 20e-3));
    assertThat(much.verdict()).isNotIn(FaultRow.Verdict.HARMLESS, FaultRow.Verdict.HANGS);
    // Where no usual current makes a difference, there is nothing to say.
    Channel coarse = c.define(d -> d.withTolerance(Value.of(3 * at20)));
    assertThat(groundLead(coarse).verdict()).isEqualTo(FaultRow.Verdict.HARMLESS);
  }

  /** A sensor that draws nothing of its own hangs on nothing. */
  @Test
  void whatCarriesNoSupplyCurrentHangsOnNothing() {
    for (Channel c : BOOK.channels()) {
      Channel unsaid = drawing(c, null);
      Analysis.of(unsaid).wiring().faults().orElseThrow().rows().stream()
          .filter(r -> r.verdict() == FaultRow.Verdict.HANGS)
          .forEach(
              r -> assertThat(r.fault().kind()).isIn(FaultKind.GROUND_LEAD, FaultKind.SUPPLY_LEAD));
    }
    Channel thermistor = drawing(BOOK.byTag("RW-T1").orElseThrow(), null);
    assertThat(groundLead(thermistor).note()).doesNotContain("supply current");
  }
}
