package nocking.analysis;

import nocking.check.Verdict;
import nocking.finding.Severity;

/** The sign of a channel in the rack. */
public enum ChannelState {
  /** Nothing to judge yet. */
  NOT_STARTED,
  /** Under way, nothing wrong. */
  UNDER_WAY,
  /** Checked, and good. */
  PASS,
  /** A finding wants attention. */
  WARNING,
  /** The check fails or the path cannot work. */
  FAIL;

  public static ChannelState of(Analysis a) {
    if (a.channel().design().sensor() == null) return NOT_STARTED;
    if (found(a, Severity.STOP)) return FAIL;
    if (found(a, Severity.WARNING)) return WARNING;
    return a.acceptance().verdict() == Verdict.PASS ? PASS : UNDER_WAY;
  }

  private static boolean found(Analysis a, Severity severity) {
    return a.findings().stream().anyMatch(f -> f.severity() == severity);
  }
}
