package nocking.book.internal;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.util.zip.CRC32C;
import nocking.book.Happening;

/**
 * The main file of an open book, by which it is noticed that it was deleted, replaced or written
 * over behind the back of this process. In write-ahead mode the main file changes only when the log
 * is put into it, so that any other change is someone else's. Not safe for several threads.
 */
public final class OpenedFile {
  private static final int BLOCK = 1 << 16;

  private final Path path;
  private final Object key;
  private long size;
  private FileTime changed;
  private long content;
  private boolean contentKnown;

  public OpenedFile(Path path) throws IOException {
    this.path = path;
    var now = Files.readAttributes(path, BasicFileAttributes.class);
    key = now.fileKey();
    size = now.size();
    changed = now.lastModifiedTime();
  }

  /** Takes the file as it is now for right: this process has just written it. */
  public void written() throws IOException {
    var now = Files.readAttributes(path, BasicFileAttributes.class);
    if (now.size() == size && now.lastModifiedTime().equals(changed)) return;
    size = now.size();
    changed = now.lastModifiedTime();
    contentKnown = false;
  }

  /** Remembers what the file holds, so that one who only touches it raises no alarm. */
  public void remember() throws IOException {
    if (contentKnown) return;
    content = checksum();
    contentKnown = true;
  }

  /** What happened to the file since it was opened or last written by this process. */
  public Happening happened() {
    try {
      var now = Files.readAttributes(path, BasicFileAttributes.class);
      if (key != null && !key.equals(now.fileKey())) return Happening.REPLACED;
      if (now.size() == size && now.lastModifiedTime().equals(changed)) return Happening.NOTHING;
      if (contentKnown && now.size() == size && checksum() == content) {
        changed = now.lastModifiedTime();
        return Happening.NOTHING;
      }
      return Happening.CHANGED;
    } catch (NoSuchFileException e) {
      return Happening.GONE;
    } catch (IOException e) {
      return Happening.UNREACHABLE;
    }
  }

  private long checksum() throws IOException {
    var sum = new CRC32C();
    var block = new byte[BLOCK];
    try (var in = Files.newInputStream(path)) {
      for (int n = in.read(block); n >= 0; n = in.read(block)) sum.update(block, 0, n);
    }
    return sum.getValue();
  }
}
