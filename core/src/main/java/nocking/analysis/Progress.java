package nocking.analysis;

/** How far a stage of the work has come. */
public enum Progress {
  EMPTY,
  HALF,
  FULL
}
