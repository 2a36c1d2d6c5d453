package nocking.finding;

import java.util.List;
import java.util.stream.Stream;
import nocking.view.ChannelView;

/** Looks at a channel and says what stands out. */
public interface Rule {

  /** All rules; a new one is a file and a line here. */
  List<Rule> ALL =
      List.of(
          new PathProblem(),
          new RailClip(),
          new ConverterRange(),
          new RatedRange(),
          new FixedReference(),
          new SupplyContradicts(),
          new ToleranceBelowCount(),
          new PivotMissed(),
          new LoadingMatters(),
          new MainsIsolation(),
          new PartRatings(),
          new LoopBudget(),
          new SelfHeating(),
          new OverSupply(),
          new BeyondOverload(),
          new ToleranceMatters(),
          new CardDeparture(),
          new SimilarCard(),
          new WireReadings(),
          new TeachWire(),
          new FaultHarms(),
          new FloatingSignal(),
          new FaultLimits(),
          new BackwardsSignal(),
          new BandsContradict(),
          new BandsReach(),
          new RestReading(),
          new StoredCharge(),
          new PrefixSlip(),
          new DatasheetSlip(),
          new ReadingsAlike(),
          new RepeatOutlier(),
          new UpAndDown(),
          new DeadEnds(),
          new PointsContradict(),
          new ConstantOffset(),
          new SensorAlone(),
          new FaultReading(),
          new DoubtfulPoints(),
          new PointsNotMonotone(),
          new PointsCoverage(),
          new MidSpan(),
          new StaleAdoption(),
          new ReceiverBelieves(),
          new DisplayStandsStill(),
          new TableMisses(),
          new TableGoesOn(),
          new BenchPairsSlip(),
          new StrokesDiffer(),
          new ReceiverCopy(),
          new CheckFails(),
          new Cautions());

  Stream<Finding> examine(ChannelView channel);
}
