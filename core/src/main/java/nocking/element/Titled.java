package nocking.element;

/** Something that a form offers by name. */
public interface Titled {
  /** What a technician calls it. */
  String title();
}
