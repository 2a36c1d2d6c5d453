package nocking.diagnosis;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.Hazard;
import nocking.channel.QuantityKind;
import nocking.fault.Fault;
import nocking.fault.FaultCatalogue;
import nocking.fault.Faults;
import nocking.fault.FaultyPath;
import nocking.fault.Subject;
import nocking.prior.FaultKind;
import nocking.prior.PriorWeights;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.stage.BridgeRectifier;
import nocking.stage.Stage;
import nocking.wiring.Meter;
import nocking.wiring.Observation;
import nocking.wiring.Place;
import org.junit.jupiter.api.Test;

/** What is said of everything that was seen, and what may be seen at all. */
class InquiryTest {
  private static final Channel BLOWER = Channels.blower();
  private static final Subject SUBJECT = Analysis.of(BLOWER).wiring().subject().orElseThrow();
  private static final Diagnostician ENGINE = Diagnostician.of(SUBJECT, PriorWeights.USUAL);

  private static Fault fault(FaultKind kind) {
    return FaultCatalogue.of(SUBJECT).stream()
        .filter(f -> f.kind() == kind)
        .findFirst()
        .orElseThrow()
        .withSeverity(kind.severity(0.9));
  }

  /** Everything that can be measured, at three inputs, with these faults in the circuit. */
  private static List<MeasuredValue> everything(Fault... faults) {
    var list = new ArrayList<MeasuredValue>();
    for (double x : new double[] {10, 30, 50}) {
      FaultyPath path = FaultyPath.of(SUBJECT, Faults.of(faults), x);
      for (Place p : ENGINE.places()) {
        if (p.equals(Place.DISPLAY) || !p.live()) continue;
        FaultyPath.Reading r = path.read(p, Meter.HAND_HELD.inputResistance());
        if (!r.floats()) {
          list.add(MeasuredValue.of(p, x, Meter.HAND_HELD.shown(r.value(), p)));
        }
      }
    }
    return list;
  }

  @Test
  void whatIsSaidFollowsWhatWasSeen() {
    Inquiry nothing = Inquiry.of(ENGINE, List.of());
    assertThat(nothing.leading()).isEmpty();
    assertThat(nothing.says(0.5)).startsWith("Add what the display says at a known input");
    Inquiry sound = Inquiry.of(ENGINE, List.of(MeasuredValue.of(Place.DISPLAY, 30, 30.1)));
    assertThat(sound.says(0.5))
        .isEqualTo("Nothing seen so far is wrong: it is all within tolerance.");
    assertThat(sound.leading()).isNotEmpty().hasSizeLessThanOrEqualTo(8);
  }

  /** One fault in the circuit leads, and the sentence sends to its family. */
  @Test
  void theFamilyOfTheLikeliestIsNamed() {
    for (FaultKind kind : List.of(FaultKind.GROUND_OFFSET, FaultKind.SIGNAL_TO_GROUND)) {
      Inquiry found = Inquiry.of(ENGINE, everything(fault(kind)));
      assertThat(found.leading().getFirst().fault().kind()).isEqualTo(kind);
      assertThat(found.says(0.5)).startsWith("Look at the " + kind.family().title() + " first.");
    }
  }

  /** A ground at 0 V is 0 V with every prefix: no reading was misread where all are sound. */
  @Test
  void soundReadingsAreNotBlamedOnThePrefix() {
    Ranking r = ENGINE.rank(everything(Fault.NONE));
    double none = r.of(Fault.NONE).orElseThrow().probability();
    Explanation slip =
        r.explanations().stream()
            .filter(e -> e.fault().kind() == FaultKind.METER_PREFIX)
            .findFirst()
            .orElseThrow();
    assertThat(slip.probability()).isLessThan(none / 10);
  }

  /** Two faults that no single one explains: both are named, or the one that is sure. */
  @Test
  void twoAtOnceAreLookedForWhereNoSingleOneFits() {
    Fault first = fault(FaultKind.GROUND_OFFSET);
    Fault second =
        FaultCatalogue.of(SUBJECT).stream()
            .filter(f -> f.kind() == FaultKind.PART_DECADE && f.part().equals("R1"))
            .findFirst()
            .orElseThrow();
    Inquiry single = Inquiry.of(ENGINE, everything(first, second));
    assertThat(single.ranking().unexplained()).isTrue();
    assertThat(single.says(0.5)).endsWith("Looking whether two at once do …");
    Inquiry both = single.with(ENGINE.twoAtOnce(single.ranking()));
    assertThat(both.two().orElseThrow().pairs().getFirst().probability()).isBetween(0.0, 1.0);
    assertThat(both.says(0.5)).contains("Two faults at once explain it: ").contains(second.name());
    assertThat(both.says(0.5)).doesNotContain("Looking whether");
  }

  /** The hidden fault may be named, what cannot be told from it counts, and the book keeps it. */
  @Test
  void aPracticeRoundIsJudgedByWhatCanBeTold() {
    for (Exercise.Difficulty level : Exercise.Difficulty.values()) {
      PracticeRound round = PracticeRound.hide(SUBJECT, 1, level, 7).orElseThrow();
      Fault hidden = round.exercise().hidden();
      assertThat(level.holds(hidden)).isTrue();
      assertThat(round.names()).anyMatch(f -> f.same(hidden)).isNotEmpty();
      PracticeRound.Outcome right = round.judge(hidden);
      assertThat(right.right()).isTrue();
      Fault sound = Fault.NONE;
      assertThat(round.judge(sound).right()).isFalse();
      var kept = round.result(" Ada ", level, hidden, right, "2026-11-26", 75);
      assertThat(kept.effort().orElseThrow().seconds()).isEqualTo(75);
      assertThat(kept.effort().orElseThrow().live())
          .isEqualTo((int) round.exercise().seen().stream().filter(m -> m.place().live()).count());
      assertThat(kept.learner()).isEqualTo("Ada");
      assertThat(kept.channel()).isEqualTo("BL-P1");
      assertThat(kept.hidden()).isEqualTo(hidden.says());
      assertThat(kept.measurements()).isPositive();
      assertThat(round.inputs().low()).isCloseTo(-6, within(1e-9));
      assertThatThrownBy(() -> round.requireInput(70))
          .isInstanceOf(QuantityException.class)
          .hasMessage("70 lies outside the range 0 … 60 kPa");
    }
  }

  /** Whoever practises takes a lesson home wherever there is one to take. */
  @Test
  void everyFamilyOfFaultsOnTheBenchHasItsLesson() {
    for (FaultKind k : FaultKind.values()) {
      boolean bench =
          switch (k.family()) {
            case WIRE, PART, SENSOR, NUMBERS -> true;
            case NONE, MEASURING, UNLISTED -> false;
          };
      assertThat(k.family().lesson().isEmpty()).as(k.name()).isEqualTo(!bench);
    }
  }

  @Test
  void inputsReachATenthBeyondTheSensor() {
    assertThat(Diagnosis.inputs(BLOWER).low()).isCloseTo(-10, within(1e-9));
    assertThat(Diagnosis.inputs(BLOWER).high()).isCloseTo(110, within(1e-9));
    Diagnosis.requireInput(BLOWER, new Observation(Place.DISPLAY, v(110), v(3)));
    Diagnosis.requireInput(BLOWER, new Observation(Place.DISPLAY, null, v(3)));
    assertThatThrownBy(
            () -> Diagnosis.requireInput(BLOWER, new Observation(Place.DISPLAY, v(111), v(3))))
        .isInstanceOf(QuantityException.class)
        .hasMessage("the input reads 111, expected -10 … 110 kPa");
  }

  /** The digits that a display shows say how exact it is; a jumping one is its middle. */
  @Test
  void whatWasSeenKeepsItsDigits() {
    MeasuredValue o =
        Diagnosis.observed(Observation.typed(Place.DISPLAY, v(30), "29.50", Unit.of("kPa")));
    assertThat(o.value()).isEqualTo(29.5);
    assertThat(o.step()).isCloseTo(0.01, within(1e-12));
    MeasuredValue jumps = Diagnosis.observed(new Observation(Place.DISPLAY, v(30), v(20), v(40)));
    assertThat(jumps.value()).isEqualTo(30);
    assertThat(jumps.jumps()).isTrue();
    assertThat(Diagnosis.observed(new Observation(Place.DISPLAY, null, v(2))).inputKnown())
        .isFalse();
    assertThat(Diagnosis.tolerance(BLOWER)).isEqualTo(0.5);
    assertThat(Diagnosis.tolerance(BLOWER.define(d -> d.withTolerance(null)))).isEqualTo(0.6);
  }

  @Test
  void pinsCountAsSeenOnce() {
    Channel c = BLOWER;
    assertThat(Diagnosis.ofPins(c)).isEmpty();
    Channel measured =
        c.wiring(w -> w.withPlan(w.plan().with(2, w.plan().pins().get(2).withMeasured(v(0.26)))));
    List<Observation> taken = Diagnosis.ofPins(measured);
    assertThat(taken).hasSize(1);
    assertThat(taken.getFirst().place()).isEqualTo(Place.of(Place.Kind.SIGNAL_AT_RECEIVER));
    assertThat(taken.getFirst().at().number()).isZero();
    assertThat(Diagnosis.ofPins(measured.wiring(w -> w.withObservations(taken)))).isEmpty();
  }

  @Test
  void readingsAreSaidInTheirUnits() {
    Unit kPa = Unit.of("kPa");
    assertThat(Diagnosis.reading(Place.DISPLAY, 12.34567, kPa)).isEqualTo("12.35 kPa");
    Place volts = Place.of(Place.Kind.SIGNAL_AT_SENSOR);
    assertThat(Diagnosis.reading(volts, 1.7, kPa)).isEqualTo("1.700 V");
    assertThat(Diagnosis.reading(volts, 1e-6, kPa)).isEqualTo("0 V");
    assertThat(Diagnosis.reading(volts, Double.NaN, kPa)).isEqualTo("floats");
    assertThat(Diagnosis.reading(Place.of(Place.Kind.OHMS_AT_SENSOR), 1e12, kPa)).isEqualTo("open");
  }

  /** Each danger that is marked stands beside the measurement, at the display too. */
  @Test
  void everyHazardHasItsCaution() {
    Place live = Place.of(Place.Kind.SIGNAL_AT_SENSOR);
    String plain = MeasuringCaution.of(BLOWER, live);
    assertThat(plain).startsWith("Live: one probe at a time").endsWith("come first.");
    for (Hazard h : Hazard.values()) {
      Channel c = BLOWER.define(d -> d.withHazards(List.of(h)));
      assertThat(MeasuringCaution.of(c, live)).as(h.title()).isNotEqualTo(plain).startsWith("Live");
      assertThat(MeasuringCaution.of(c, Place.DISPLAY)).as(h.title()).doesNotContain("Live");
      assertThat(MeasuringCaution.of(c, null)).isEqualTo(MeasuringCaution.of(c, live));
    }
    Stage bridge =
        Stage.kinds().stream().filter(BridgeRectifier.class::isInstance).findFirst().orElseThrow();
    Channel stored =
        BLOWER
            .define(d -> d.withKind(QuantityKind.VOLTAGE))
            .design(d -> d.withStages(List.of(bridge)));
    assertThat(MeasuringCaution.of(stored, live)).contains("Stored charge");
  }
}
