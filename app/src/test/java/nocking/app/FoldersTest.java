package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** What is a person's own lies where the session says, and never where someone happens to stand. */
class FoldersTest {
  private static final Path HOME = Path.of("/home/kim").toAbsolutePath();
  private static final Path STATE = Path.of("/srv/state").toAbsolutePath();

  @Test
  void aSessionSaysWhere() {
    var said = new Folders(Map.of("XDG_STATE_HOME", STATE.toString()), HOME.toString());
    assertThat(said.stateFolder()).isEqualTo(STATE.resolve("nocking"));
    assertThat(said.book()).isEqualTo(HOME.resolve(".local/share/nocking/bench.nocking"));
    assertThat(said.leftAside()).isEmpty();
    var home = new Folders(Map.of("HOME", STATE.toString()), HOME.toString());
    assertThat(home.stateFolder()).isEqualTo(STATE.resolve(".local/state/nocking"));
  }

  @Test
  void aRelativeFolderIsLeftAsideAndThatIsSaid() {
    var relative =
        new Folders(
            Map.of("XDG_STATE_HOME", "state", "XDG_DATA_HOME", "../x", "HOME", "."),
            HOME.toString());
    assertThat(relative.stateFolder()).isEqualTo(HOME.resolve(".local/state/nocking"));
    assertThat(relative.book().toString()).startsWith(HOME.toString());
    assertThat(relative.leftAside().orElseThrow())
        .isEqualTo("XDG_STATE_HOME is 'state', which is no absolute path and is left aside.");
  }

  /** A service account may have none. */
  @Test
  void withoutAHomeThereIsAFolderForTheMoment() {
    var none = new Folders(Map.of(), "?");
    assertThat(none.stateFolder()).isAbsolute().isEqualTo(none.stateFolder());
    assertThat(none.stateFolder().toString()).doesNotContain("?");
  }
}
