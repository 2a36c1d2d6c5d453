package nocking.book.internal;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFileAttributes;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.EnumSet;
import java.util.Set;
import java.util.UUID;

/**
 * A file that is written beside its place, under a name that nobody can foresee, and put there
 * whole once it is on the disk. Who looks meanwhile, or after a kill, meets the old file or the new
 * one. Closing takes away what was not put in its place.
 */
public final class WholeFile implements AutoCloseable {
  private static final Set<PosixFilePermission> OWNER_ALONE =
      PosixFilePermissions.fromString("rw-------");
  private static final Set<PosixFilePermission> WRITE =
      EnumSet.of(
          PosixFilePermission.OWNER_WRITE,
          PosixFilePermission.GROUP_WRITE,
          PosixFilePermission.OTHERS_WRITE);
  private static final Set<PosixFilePermission> GROUP =
      EnumSet.of(
          PosixFilePermission.GROUP_READ,
          PosixFilePermission.GROUP_WRITE,
          PosixFilePermission.GROUP_EXECUTE);

  private final Path place;
  private final Path part;
  private boolean replaces;
  private boolean placed;

  private WholeFile(Path place, boolean ownerAlone) throws IOException {
    this.place = place;
    part = place.resolveSibling(".nocking-" + UUID.randomUUID() + ".part");
    if (ownerAlone && posix(place.toAbsolutePath().getParent()) != null) {
      Files.createFile(part, PosixFilePermissions.asFileAttribute(OWNER_ALONE));
    } else {
      Files.createFile(part);
    }
  }

  /**
   * A file where there is none.
   *
   * @throws FileAlreadyExistsException when something is there, also a link that leads nowhere
   */
  public static WholeFile anew(Path place) throws IOException {
    requireFree(place);
    return new WholeFile(place, false);
  }

  /** The same, for the eyes of its owner only. */
  public static WholeFile anewForOwner(Path place) throws IOException {
    requireFree(place);
    return new WholeFile(place, true);
  }

  /**
   * A file where there is none, which no more people may read than another one.
   *
   * @param model whose mode it gets
   */
  public static WholeFile anewAs(Path place, Path model) throws IOException {
    WholeFile f = anewForOwner(place);
    try {
      f.takeMode(model);
      return f;
    } catch (IOException | RuntimeException e) {
      f.close();
      throw e;
    }
  }

  /**
   * A file in the place of one that is there, with its mode, owner and group.
   *
   * @throws FileSystemException when that one is protected, or its owner or group cannot be kept
   */
  public static WholeFile inPlaceOf(Path there) throws IOException {
    requireUnprotected(there);
    var f = new WholeFile(there, true);
    try {
      f.takeOwner(there);
      f.takeMode(there);
      f.replaces = true;
      return f;
    } catch (IOException | RuntimeException e) {
      f.close();
      throw e;
    }
  }

  private static void requireFree(Path place) throws FileAlreadyExistsException {
    if (Files.exists(place, LinkOption.NOFOLLOW_LINKS)) {
      throw new FileAlreadyExistsException(place.toString());
    }
  }

  /** Whoever may do everything is stopped by the mode of a file, too. */
  private static void requireUnprotected(Path there) throws IOException {
    PosixFileAttributes now = posix(there);
    boolean bare = now != null && now.permissions().stream().noneMatch(WRITE::contains);
    if (bare || !Files.isWritable(there)) {
      throw new FileSystemException(there.toString(), null, "it is write-protected");
    }
  }

  /** Null on a disk without such attributes. */
  private static PosixFileAttributes posix(Path file) throws IOException {
    var view = view(file);
    return view == null ? null : view.readAttributes();
  }

  private static PosixFileAttributeView view(Path file) {
    return Files.getFileAttributeView(file, PosixFileAttributeView.class);
  }

  private void takeOwner(Path there) throws IOException {
    PosixFileAttributes old = posix(there);
    if (old == null) return;
    PosixFileAttributes now = posix(part);
    try {
      if (!now.owner().equals(old.owner())) view(part).setOwner(old.owner());
      if (!now.group().equals(old.group())) view(part).setGroup(old.group());
    } catch (IOException e) {
      throw new FileSystemException(
          there.toString(),
          null,
          "it belongs to %s, group %s, and would not when it is replaced"
              .formatted(old.owner().getName(), old.group().getName()));
    }
  }

  /** A mode for another group is no mode for this one. */
  private void takeMode(Path model) throws IOException {
    PosixFileAttributes like = posix(model);
    if (like == null) return;
    Set<PosixFilePermission> mode = EnumSet.noneOf(PosixFilePermission.class);
    mode.addAll(like.permissions());
    if (!posix(part).group().equals(like.group())) mode.removeAll(GROUP);
    view(part).setPermissions(mode);
  }

  /** Where the content is written, by whatever writes it. */
  public Path part() {
    return part;
  }

  public void write(byte[] bytes) throws IOException {
    try (var out = FileChannel.open(part, StandardOpenOption.WRITE)) {
      for (var rest = ByteBuffer.wrap(bytes); rest.hasRemaining(); ) out.write(rest);
    }
  }

  /**
   * Puts the file in its place, on the disk before it is there.
   *
   * @throws FileAlreadyExistsException when someone else was quicker with a new one
   */
  public void put() throws IOException {
    try (var out = FileChannel.open(part, StandardOpenOption.WRITE)) {
      out.force(true);
    }
    if (replaces) {
      Files.move(part, place, StandardCopyOption.ATOMIC_MOVE);
    } else {
      linkOrMove();
    }
    placed = true;
    forceFolder();
  }

  /** A second name is given in one step, and only where there is none; not every disk can. */
  private void linkOrMove() throws IOException {
    try {
      Files.createLink(place, part);
    } catch (FileAlreadyExistsException e) {
      throw e;
    } catch (UnsupportedOperationException | FileSystemException e) {
      Files.move(part, place);
      return;
    }
    Files.delete(part);
  }

  private void forceFolder() {
    try (var folder =
        FileChannel.open(place.toAbsolutePath().getParent(), StandardOpenOption.READ)) {
      folder.force(true);
    } catch (IOException e) {
      // Not every system lets a folder be opened; the file itself is on the disk.
    }
  }

  @Override
  public void close() {
    if (placed) return;
    try {
      Files.deleteIfExists(part);
    } catch (IOException e) {
      // A leftover part is in nobody's way, and what went wrong is being reported already.
    }
  }
}
