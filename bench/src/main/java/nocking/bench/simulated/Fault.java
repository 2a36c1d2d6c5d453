package nocking.bench.simulated;

/** What can go wrong on a bench, by command. */
public enum Fault {
  /** The signal wire is off: the input floats near nothing. */
  PULLED_WIRE,
  /** The supply sags: every output is four fifths. */
  FLAT_BATTERY,
  /** One reading is far out. */
  SPIKE,
  /** The meter goes on saying what it said last. */
  FROZEN,
  /** It answers with noise. */
  GARBAGE,
  /** It does not answer. */
  SILENT,
  /** It says that it is beyond its range. */
  OVERRANGE,
  /** It drops the connection. */
  DROPPED,
  /** All is well again. */
  NONE
}
