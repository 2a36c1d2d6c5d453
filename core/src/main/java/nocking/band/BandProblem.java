package nocking.band;

/**
 * Something in a band plan that does not go together.
 *
 * @param kind of trouble
 * @param index of the position, alarm or switch that it concerns
 * @param text what and by how much, one sentence
 */
public record BandProblem(Kind kind, int index, String text) {

  /** Kinds of trouble, the gravest first. */
  public enum Kind {
    OVERLAP,
    ORDER,
    GAP,
    TOO_CLOSE,
    SWITCH,
    /** Nobody knows how far a station settles beside its place. */
    SLACK,
    TRAVEL;

    /** True for what contradicts nothing and could be better known or used. */
    public boolean advice() {
      return this == SLACK || this == TRAVEL;
    }
  }
}
