package nocking.book.internal;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Optional;

/**
 * One writer a book. The operating system frees the lock when the process ends, however it ends, so
 * a crash never leaves a book locked.
 */
public final class BookLock implements AutoCloseable {
  private final Path file;
  private final FileChannel channel;
  private final FileLock lock;

  private BookLock(Path file, FileChannel channel, FileLock lock) {
    this.file = file;
    this.channel = channel;
    this.lock = lock;
  }

  /**
   * @return empty when someone else writes this book
   * @throws IOException when the folder cannot be written
   */
  public static Optional<BookLock> take(Path book) throws IOException {
    Path file = book.resolveSibling("." + book.getFileName() + ".lock");
    FileChannel channel =
        FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
    try {
      FileLock lock = channel.tryLock();
      if (lock != null) return Optional.of(new BookLock(file, channel, lock));
    } catch (OverlappingFileLockException e) {
      // Another window of this very process has it.
    }
    channel.close();
    return Optional.empty();
  }

  @Override
  public void close() {
    try {
      Files.deleteIfExists(file);
      lock.release();
      channel.close();
    } catch (IOException e) {
      // The lock goes with the process at the latest.
    }
  }
}
