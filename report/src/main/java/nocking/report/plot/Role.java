package nocking.report.plot;

/** What a mark in a plot stands for; a palette gives it a colour. */
public enum Role {
  CURVE,
  OTHER,
  QUIET,
  POINT,
  LEFT_OUT,
  PASS,
  FAIL,
  TOLERANCE,
  RAIL,
  SHADE
}
