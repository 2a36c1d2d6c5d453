package nocking.analysis;

import nocking.channel.Channel;
import nocking.channel.Design;
import nocking.channel.WorkStep;
import nocking.finding.Severity;
import nocking.wiring.WirePlan;

/** How far a stage of the work has come. */
public enum Progress {
  EMPTY,
  HALF,
  FULL;

  /** Points that are called enough. */
  private static final int ENOUGH_POINTS = 3;

  public static Progress of(Analysis a, WorkStep step) {
    Channel c = a.channel();
    return switch (step) {
      case DEFINE -> define(a);
      case CONDITION -> condition(a);
      case WIRE -> wire(c.wiring().plan());
      case COLLECT -> amount(c.calibration().points().counting().size(), ENOUGH_POINTS);
      case FIT ->
          c.calibration().adopted() != null
              ? FULL
              : a.calibration().samples().size() > 0 ? HALF : EMPTY;
      case TABLE ->
          c.receiver().table() == null
              ? EMPTY
              : a.receiver().table().result().isPresent() ? FULL : HALF;
      case CHECK -> amount(a.acceptance().measured(), Math.max(1, a.acceptance().rows().size()));
      case RECORD -> c.journal().locked() ? FULL : EMPTY;
    };
  }

  private static Progress define(Analysis a) {
    Design d = a.channel().design();
    if (d.sensor() == null) return EMPTY;
    return a.design().path().isPresent() && d.definition().tolerance() != null ? FULL : HALF;
  }

  private static Progress condition(Analysis a) {
    if (a.design().path().isEmpty()) return EMPTY;
    boolean stopped =
        a.findings().stream()
            .anyMatch(f -> f.step() == WorkStep.CONDITION && f.severity() == Severity.STOP);
    return stopped ? HALF : FULL;
  }

  private static Progress wire(WirePlan plan) {
    int named = (int) plan.pins().stream().filter(p -> !p.terminal().isBlank()).count();
    return amount(named, plan.pins().size());
  }

  private static Progress amount(int have, int enough) {
    return have == 0 ? EMPTY : have < enough ? HALF : FULL;
  }
}
