package nocking.procedure;

/** What the hands do in a step, as a bench that stands in has to know it. */
public enum Deed {
  NONE,
  LOOSEN,
  TIGHTEN,
  /** The teach wire is held to ground. */
  GROUND,
  /** The teach wire is taken off it. */
  RELEASE
}
