package nocking.book.internal;

import static java.nio.file.LinkOption.NOFOLLOW_LINKS;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/**
 * One writer a book. The operating system frees the lock when the process ends, however it ends, so
 * a crash never leaves a book locked. The file that carries the lock stays: were it deleted, one
 * who had opened it before and one who makes it anew would both hold a lock, each on a file of its
 * own.
 */
public final class BookLock implements AutoCloseable {
  /**
   * What this process holds. It is asked first, for closing any channel to a file lets go of all
   * locks that the process has on it (POSIX fcntl), and with them of the first window's.
   */
  private static final Set<Path> HELD = ConcurrentHashMap.newKeySet();

  /** What lies in the place of the lock is no file: a link would lead to a file of others. */
  public static final class NoLockException extends IOException {
    private static final long serialVersionUID = 1L;

    NoLockException(Path file) {
      super("its lock %s is no file".formatted(file.getFileName()));
    }
  }

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
    Path real = real(book);
    Path file = real.resolveSibling("." + real.getFileName() + ".lock");
    if (!HELD.add(file)) return Optional.empty();
    boolean taken = false;
    try {
      Optional<BookLock> lock = lock(file);
      taken = lock.isPresent();
      return lock;
    } finally {
      if (!taken) HELD.remove(file);
    }
  }

  private static Optional<BookLock> lock(Path file) throws IOException {
    if (Files.exists(file, NOFOLLOW_LINKS) && !Files.isRegularFile(file, NOFOLLOW_LINKS)) {
      throw new NoLockException(file);
    }
    FileChannel channel =
        FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE, NOFOLLOW_LINKS);
    FileLock lock = null;
    try {
      lock = channel.tryLock();
    } catch (OverlappingFileLockException e) {
      // A hard link leads to the lock of another window of this process.
    } finally {
      if (lock == null) channel.close();
    }
    return lock == null ? Optional.empty() : Optional.of(new BookLock(file, channel, lock));
  }

  /** One book has one lock, by whatever link it is opened. */
  private static Path real(Path book) throws IOException {
    if (Files.exists(book)) return book.toRealPath();
    Path absolute = book.toAbsolutePath().normalize();
    return absolute.getParent().toRealPath().resolve(absolute.getFileName());
  }

  @Override
  public void close() {
    try {
      lock.release();
      channel.close();
    } catch (IOException e) {
      // The lock goes with the process at the latest.
    } finally {
      HELD.remove(file);
    }
  }
}
