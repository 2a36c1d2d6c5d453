package nocking.book;

/** What others did to the file of a book while it was open here. */
public enum Happening {
  NOTHING(""),
  GONE("was deleted or moved away"),
  REPLACED("was replaced by another file"),
  CHANGED("was changed by another program"),
  UNREACHABLE("can no longer be reached");

  private final String words;

  Happening(String words) {
    this.words = words;
  }

  /** Half a sentence behind the name of the file. */
  public String words() {
    return words;
  }

  /** True when what was opened can still be read, though no name leads to it. */
  public boolean readable() {
    return this == NOTHING || this == GONE || this == REPLACED;
  }
}
