package nocking.run;

import java.util.Optional;

/** Where a run is written down. What was handed over is on the disk when the method returns. */
public interface RunJournal {
  /**
   * @param completes the point that this sweep completes; written with it or not at all
   */
  void append(Sweep sweep, Optional<RunPoint> completes);

  void append(Act act);
}
