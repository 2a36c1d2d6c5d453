package nocking.finding;

/** How much a finding matters, the gravest first. */
public enum Severity {
  STOP,
  WARNING,
  ADVICE,
  CAUTION
}
