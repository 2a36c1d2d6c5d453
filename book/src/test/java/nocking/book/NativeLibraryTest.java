package nocking.book;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.net.URL;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is loaded into the process is what was shipped, whoever was there before. */
class NativeLibraryTest {
  @TempDir Path folder;
  private Path home;
  private URL shipped;

  @BeforeEach
  void ship() throws IOException {
    assumeTrue(folder.getFileSystem().supportedFileAttributeViews().contains("posix"));
    home = folder.resolve("native");
    shipped = Files.writeString(folder.resolve("lib.so"), "the library").toUri().toURL();
  }

  private Path unpacked() throws IOException {
    return NativeLibrary.unpacked(shipped, home).resolve("lib.so");
  }

  private static String mode(Path f) throws IOException {
    return PosixFilePermissions.toString(Files.getPosixFilePermissions(f));
  }

  @Test
  void itLiesWhereOnlyItsOwnerCanPutAnything() throws IOException {
    Files.createDirectory(home);
    Files.setPosixFilePermissions(home, PosixFilePermissions.fromString("rwxrwxrwx"));
    Path library = unpacked();
    assertThat(library).hasContent("the library");
    assertThat(mode(home)).isEqualTo("rwx------");
    assertThat(mode(library.getParent())).isEqualTo("rwx------");
  }

  /** As long as the right one, or of nothing but zeros. */
  @Test
  void anotherFileInItsPlaceIsReplaced() throws IOException {
    Path library = unpacked();
    for (String other : new String[] {"THE LIBRARY", "\0".repeat(11), "", "longer than it was"}) {
      Files.writeString(library, other);
      assertThat(unpacked()).hasContent("the library");
    }
    Path mine = Files.writeString(folder.resolve("mine"), "the library");
    Files.delete(library);
    Files.createSymbolicLink(library, mine);
    assertThat(unpacked()).isRegularFile().isNotEqualTo(mine);
    assertThat(Files.isSymbolicLink(library)).isFalse();
    assertThat(mine).hasContent("the library");
  }

  @Test
  void aLinkInThePlaceOfTheFolderIsNotFollowed() throws IOException {
    Path elsewhere = Files.createDirectory(folder.resolve("elsewhere"));
    Files.createSymbolicLink(home, elsewhere);
    assertThatThrownBy(this::unpacked).isInstanceOf(IOException.class).hasMessageContaining("link");
    assertThat(elsewhere).isEmptyDirectory();
  }

  @Test
  void whatIsThereIsNotWrittenAgain() throws IOException {
    Path library = unpacked();
    Object key = Files.readAttributes(library, "fileKey").get("fileKey");
    assertThat(Files.readAttributes(unpacked(), "fileKey").get("fileKey")).isEqualTo(key);
  }
}
