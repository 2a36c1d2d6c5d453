package nocking.analysis;

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
  FAIL
}
