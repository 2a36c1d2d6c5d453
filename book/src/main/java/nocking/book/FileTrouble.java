package nocking.book;

import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;

/** Why a file cannot be written or read, in words that say where to look. */
public final class FileTrouble {
  /** What systems say, and what it means to the one who reads it. */
  private static final Map<String, String> MEANINGS =
      Map.of(
          "file name too long", "its name is too long for this disk",
          "no space left on device", "the disk is full",
          "disk quota exceeded", "the disk is full",
          "read-only file system", "the disk is read-only",
          "not a directory", "a part of its path is a file and no folder",
          "is a directory", "it is a folder",
          "permission denied", "permission is refused",
          "operation not permitted", "permission is refused",
          "input/output error", "the disk reports an error");

  private FileTrouble() {}

  /** Half a sentence for why {@code file} could not be written, read or made. */
  public static String why(Path file, IOException e) {
    return switch (e) {
      case AccessDeniedException _ -> "permission is refused";
      case FileAlreadyExistsException _ -> "it exists already";
      case NotDirectoryException _ -> "a part of its path is a file and no folder";
      case NoSuchFileException _ -> missing(file);
      case FileSystemException f when f.getReason() != null -> meaning(f.getReason());
      default -> meaning(String.valueOf(e.getMessage()));
    };
  }

  private static String missing(Path file) {
    Path folder = file.toAbsolutePath().getParent();
    return folder == null || Files.isDirectory(folder)
        ? "it does not exist"
        : "the folder %s does not exist".formatted(folder);
  }

  private static String meaning(String reason) {
    String said = reason.toLowerCase(Locale.ROOT);
    return MEANINGS.entrySet().stream()
        .filter(m -> said.contains(m.getKey()))
        .map(Map.Entry::getValue)
        .findFirst()
        .orElse(reason);
  }
}
