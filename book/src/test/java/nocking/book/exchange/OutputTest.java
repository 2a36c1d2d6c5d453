package nocking.book.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import nocking.book.BookException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What may become of a person's file when another one is written in its place. */
class OutputTest {
  @TempDir Path folder;

  @BeforeEach
  void onADiskWithModes() {
    assumeTrue(folder.getFileSystem().supportedFileAttributeViews().contains("posix"));
  }

  private Path file(String name, String content, String mode) throws IOException {
    Path f = Files.writeString(folder.resolve(name), content);
    Files.setPosixFilePermissions(f, PosixFilePermissions.fromString(mode));
    return f;
  }

  private static String mode(Path f) throws IOException {
    return PosixFilePermissions.toString(Files.getPosixFilePermissions(f));
  }

  private List<String> names() throws IOException {
    try (var all = Files.list(folder)) {
      return all.map(f -> f.getFileName().toString()).sorted().toList();
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {"rw-------", "rw-r--r--", "rw-rw-rw-", "rwxr-x--x"})
  void aReplacedFileKeepsItsMode(String mode) throws IOException {
    Path f = file("a.csv", "old", mode);
    Output.write(f, "new", true);
    assertThat(f).hasContent("new");
    assertThat(mode(f)).isEqualTo(mode);
    assertThat(names()).containsExactly("a.csv");
  }

  @Test
  void aReplacedFileKeepsItsOwnerOrStaysAsItIs() throws IOException {
    Path f = file("a.csv", "old", "rw-rw-rw-");
    try {
      Files.setAttribute(f, "unix:uid", 12345);
    } catch (IOException e) {
      assumeTrue(false, "only root gives a file away");
    }
    Output.write(f, "new", true);
    assertThat(Files.getAttribute(f, "unix:uid")).isEqualTo(12345);
  }

  /** Also for one who may write anything: the mode is a person's wish. */
  @Test
  void aProtectedFileIsNotReplaced() throws IOException {
    Path f = file("a.csv", "old", "r--r--r--");
    assertThatThrownBy(() -> Output.write(f, "new", true))
        .isInstanceOf(BookException.class)
        .hasMessageContaining("a.csv cannot be written: it is write-protected");
    assertThat(f).hasContent("old");
    assertThat(names()).containsExactly("a.csv");
  }

  @Test
  void ofSeveralFilesAllAreWrittenOrNone() throws IOException {
    Path first = file("a.h", "old", "rw-r--r--");
    Path last = file("b.c", "old", "r--r--r--");
    Map<Path, byte[]> files = new LinkedHashMap<>();
    files.put(first, "new".getBytes());
    files.put(folder.resolve("c.py"), "new".getBytes());
    files.put(last, "new".getBytes());
    assertThatThrownBy(() -> Output.writeAll(files, true)).isInstanceOf(BookException.class);
    assertThat(first).hasContent("old");
    assertThat(names()).containsExactly("a.h", "b.c");
    Files.setPosixFilePermissions(last, PosixFilePermissions.fromString("rw-r--r--"));
    assertThatThrownBy(() -> Output.writeAll(files, false))
        .hasMessageContaining("a.h exists already");
    assertThat(names()).containsExactly("a.h", "b.c");
    Output.writeAll(files, true);
    assertThat(first).hasContent("new");
    assertThat(names()).containsExactly("a.h", "b.c", "c.py");
  }

  @Test
  void aLinkIsFollowedToItsFileAndNowhereElse() throws IOException {
    Path f = file("a.csv", "old", "rw-------");
    Path link = Files.createSymbolicLink(folder.resolve("link.csv"), f);
    Output.write(link, "new", true);
    assertThat(link).isSymbolicLink().hasContent("new");
    assertThat(mode(f)).isEqualTo("rw-------");
    Path lost = Files.createSymbolicLink(folder.resolve("lost.csv"), folder.resolve("none.csv"));
    assertThatThrownBy(() -> Output.write(lost, "new", true))
        .hasMessageContaining("is a link that leads nowhere");
    assertThat(folder.resolve("none.csv")).doesNotExist();
  }

  @Test
  void whatWasReadIsNotWrittenOverByWhateverName() throws IOException {
    Path f = file("a.csv", "old", "rw-r--r--");
    Path link = Files.createSymbolicLink(folder.resolve("link.csv"), f);
    Path hard = Files.createLink(folder.resolve("hard.csv"), f);
    for (Path target : List.of(f, folder.resolve("./a.csv"), link, hard)) {
      assertThatThrownBy(() -> Output.requireNotRead(target, List.of(f)))
          .as("%s", target)
          .hasMessageContaining("is what was read");
    }
    Output.requireNotRead(folder.resolve("b.csv"), List.of(f));
  }

  @Test
  void rescuedWorkIsForItsOwnerAlone() throws IOException {
    Path f = folder.resolve("rescue.json");
    Output.writeForOwner(f, "work");
    assertThat(mode(f)).isEqualTo("rw-------");
    Output.writeForOwner(f, "more work");
    assertThat(f).hasContent("more work");
    assertThat(mode(f)).isEqualTo("rw-------");
  }

  /** Nobody is kept waiting by a pipe, or filled up by a device. */
  @Test
  void onlyFilesAreRead() throws IOException {
    for (String device : List.of("/dev/zero", "/dev/null")) {
      assertThatThrownBy(() -> TextFile.read(Path.of(device)))
          .hasMessageContaining(device + " is a pipe or a device");
    }
    assertThatThrownBy(() -> TextFile.read(folder)).hasMessageContaining("is a folder");
    Path large = folder.resolve("large.json");
    try (var f =
        Files.newByteChannel(
            large,
            StandardOpenOption.CREATE_NEW,
            StandardOpenOption.WRITE,
            StandardOpenOption.SPARSE)) {
      f.position(64L << 20);
      f.write(ByteBuffer.wrap(new byte[1]));
    }
    assertThatThrownBy(() -> TextFile.read(large)).hasMessageContaining("is larger than 64 MB");
    assertThat(TextFile.read(file("mark.json", "\uFEFF{}", "rw-r--r--"))).isEqualTo("{}");
  }
}
