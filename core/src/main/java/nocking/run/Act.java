package nocking.run;

/**
 * What was done in a run, or happened to it.
 *
 * @param at milliseconds since 1970
 * @param why the reason, or what happened; may be empty where the kind says it all
 */
public record Act(long at, Kind kind, String why) implements RunEntry {
  /** The reason of a {@link Kind#TAKE} where nobody is there to be asked. */
  public static final String NOBODY_ASKED = "nobody is asked";

  /** What can be done or can happen. */
  public enum Kind {
    /** It begins, or goes on after a break; what was settling begins anew. */
    BEGIN,
    HOLD,
    GO,
    /** The point is left. */
    SKIP,
    /** The last point is taken once more. */
    REPEAT,
    /** The hands have done what the step asks for. */
    READY,
    /** The operator says that it has settled. */
    TAKE,
    /** It ends before its end. */
    STOP,
    /** The last point is taken. */
    END,
    NOTE,
    /** An instrument failed, or came back. */
    TROUBLE
  }

  public Act {
    why = why == null ? "" : why.strip();
  }
}
