package nocking.app.desk;

import nocking.run.RunProgress.Phase;
import nocking.run.RunSnapshot;

/**
 * Calls whoever is not looking: when a point is taken, when hands are needed, when something does
 * not work, and at the end.
 */
public final class RunBeep {
  private final Runnable sound;
  private boolean on;
  private int points;
  private boolean hands;
  private boolean trouble;
  private boolean doubted;
  private boolean over;

  /**
   * @param sound made on the interface thread; has to return at once
   */
  public RunBeep(Runnable sound) {
    this.sound = sound;
  }

  public boolean on() {
    return on;
  }

  public void on(boolean v) {
    on = v;
  }

  /** Hears where a run stands. */
  public void hear(RunSnapshot n) {
    boolean ends = n.phase() == Phase.DONE || n.phase() == Phase.STOPPED;
    boolean calls =
        n.points().size() > points
            || (n.hands() && !hands)
            || (!n.trouble().isEmpty() && !trouble)
            || (n.doubted() && !doubted)
            || (ends && !over);
    points = n.points().size();
    hands = n.hands();
    trouble = !n.trouble().isEmpty();
    doubted = n.doubted();
    over = ends;
    if (on && calls) sound.run();
  }
}
