package nocking.book.internal;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** A file that is written beside its place and moved there once it is whole. */
public final class PartFile {
  private PartFile() {}

  /** Takes away what is left of one; null for none. */
  public static void discard(Path part) {
    if (part == null) return;
    try {
      Files.deleteIfExists(part);
    } catch (IOException e) {
      // A leftover part is in nobody's way, and the target is already right or already reported.
    }
  }
}
