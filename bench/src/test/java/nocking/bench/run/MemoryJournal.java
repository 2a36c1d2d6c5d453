package nocking.bench.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.run.Act;
import nocking.run.RunEntry;
import nocking.run.RunJournal;
import nocking.run.RunPoint;
import nocking.run.Sweep;

/** A journal that is looked at afterwards. */
final class MemoryJournal implements RunJournal {
  final List<Sweep> sweeps = new ArrayList<>();
  final List<RunEntry> entries = new ArrayList<>();

  @Override
  public void append(Sweep sweep, Optional<RunPoint> completes) {
    sweeps.add(sweep);
    completes.ifPresent(entries::add);
  }

  @Override
  public void append(Act act) {
    entries.add(act);
  }

  List<RunPoint> points() {
    return entries.stream().filter(RunPoint.class::isInstance).map(RunPoint.class::cast).toList();
  }

  List<String> troubles() {
    return entries.stream()
        .filter(Act.class::isInstance)
        .map(Act.class::cast)
        .filter(a -> a.kind() == Act.Kind.TROUBLE)
        .map(Act::why)
        .toList();
  }
}
