package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * The start script on a machine that has never seen Nocking, with a JDK and a Maven that only say
 * what they were asked.
 */
class LauncherTest {
  @TempDir Path machine;
  private Path checkout;
  private Path jdk;
  private Path tools;

  @BeforeEach
  void newMachine() throws IOException {
    assumeTrue(Files.isExecutable(Path.of("/bin/sh")), "the script is one of the shell");
    checkout = Files.createDirectories(machine.resolve("a b ü/nocking"));
    script(checkout.resolve("nocking"), Files.readString(Path.of("..", "nocking")));
    Files.writeString(checkout.resolve("pom.xml"), "<project/>");
    Files.createDirectories(checkout.resolve("app/src/main"));
    jdk = Files.createDirectories(machine.resolve("jdk"));
    Files.createDirectories(jdk.resolve("bin"));
    Files.writeString(jdk.resolve("release"), "JAVA_VERSION=\"25.0.1\"\n");
    script(jdk.resolve("bin/javac"), "#!/bin/sh\n");
    script(
        jdk.resolve("bin/java"),
        "#!/bin/sh\nprintf 'started %s %s\\n' \"$LC_ALL\" \"$*\"\n[ -z \"$LEARNS\" ] || exit 1\n");
    tools = Files.createDirectories(machine.resolve("tools"));
    script(
        tools.resolve("mvn"),
        """
        #!/bin/sh
        pwd >> "$BUILDS"
        mkdir -p app/target/lib
        i=0
        while [ "$i" -lt 300000 ]; do i=$((i + 1)); done
        : > app/target/lib/javafx-base.jar
        : > app/target/nocking-app-0.1.0.jar
        """);
  }

  private static void script(Path file, String text) throws IOException {
    Files.writeString(file, text);
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rwxr-xr-x"));
  }

  private ProcessBuilder start(Path script, String... more) {
    var command = new ArrayList<>(List.of(script.toString(), "help"));
    var builder = new ProcessBuilder(command).redirectErrorStream(true);
    builder.environment().clear();
    builder.environment().put("PATH", tools + ":/usr/bin:/bin");
    builder.environment().put("JAVA_HOME", jdk.toString());
    builder.environment().put("BUILDS", machine.resolve("builds").toString());
    builder.environment().put("NOCKING_LEARN_NOTHING", "1");
    for (int i = 0; i < more.length; i += 2) builder.environment().put(more[i], more[i + 1]);
    return builder;
  }

  private static String said(Process p) throws Exception {
    String said = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    p.waitFor();
    return said;
  }

  private List<String> builds() throws IOException {
    return Files.readAllLines(machine.resolve("builds"));
  }

  @Test
  void twoFirstStartsBuildOnce() throws Exception {
    var starts = new ArrayList<Process>();
    for (int i = 0; i < 4; i++) starts.add(start(checkout.resolve("nocking")).start());
    var said = new ArrayList<String>();
    for (Process p : starts) said.add(said(p));
    assertThat(said).allMatch(s -> s.contains("started") && s.contains("nocking.app.Main help"));
    assertThat(said).filteredOn(s -> s.contains("another start is building")).isNotEmpty();
    assertThat(builds()).hasSize(1);
    assertThat(said(start(checkout.resolve("nocking")).start())).doesNotContain("building");
  }

  /** A build that was cut off leaves no lock behind. */
  @Test
  void aStartThatWasKilledInItsBuildIsInNobodysWay() throws Exception {
    script(tools.resolve("mvn"), "#!/bin/sh\necho here\nexec sleep 60\n");
    Process first = start(checkout.resolve("nocking")).start();
    Path log = checkout.resolve("app/target/build.log");
    while (!Files.exists(log) || Files.size(log) == 0) Thread.onSpinWait();
    first.descendants().forEach(ProcessHandle::destroyForcibly);
    first.destroyForcibly().waitFor();
    newMachineAgain();
    assertThat(said(start(checkout.resolve("nocking")).start())).contains("started");
    assertThat(builds()).hasSize(1);
  }

  private void newMachineAgain() throws IOException {
    script(
        tools.resolve("mvn"),
        "#!/bin/sh\npwd >> \"$BUILDS\"\nmkdir -p app/target/lib\n: > app/target/lib/javafx-base.jar\n");
  }

  @Test
  void aLinkToItLeadsToTheCheckout() throws Exception {
    Path bin = Files.createDirectories(machine.resolve("bin"));
    Path inner = Files.createSymbolicLink(bin.resolve("inner"), checkout.resolve("nocking"));
    Path link = Files.createSymbolicLink(bin.resolve("nocking"), inner.getFileName());
    assertThat(said(start(link).start())).contains("started");
    assertThat(builds()).containsExactly(checkout.toRealPath().toString());
    assertThat(bin.resolve("app")).doesNotExist();
  }

  /** Cleared above: neither HOME nor a language is set. */
  @Test
  void withoutAHomeAndALanguageItStarts() throws Exception {
    ProcessBuilder p = start(checkout.resolve("nocking"));
    assertThat(p.environment()).doesNotContainKeys("HOME", "LANG", "LC_ALL");
    assertThat(said(p.start())).contains("started C.UTF-8").contains("a b ü");
    assertThat(said(start(checkout.resolve("nocking"), "LC_ALL", "C").start()))
        .contains("started C.UTF-8");
    assertThat(said(start(checkout.resolve("nocking"), "LANG", "de_DE.UTF-8").start()))
        .doesNotContain("C.UTF-8");
    ProcessBuilder none = start(checkout.resolve("nocking"));
    none.environment().remove("JAVA_HOME");
    assertThat(said(none.start())).doesNotContain("parameter not set");
  }

  /** One bad moment is no verdict for good. */
  @Test
  void whatCouldNotBeLearntIsTriedAgainADayLater() throws Exception {
    assertThat(said(start(checkout.resolve("nocking")).start())).contains("started");
    String name = "nocking-%s.aot.failed".formatted(checksum());
    Path failed = Files.createFile(checkout.resolve("app/target").resolve(name));
    ProcessBuilder learns = start(checkout.resolve("nocking"));
    learns.environment().remove("NOCKING_LEARN_NOTHING");
    said(end(learns.start()));
    assertThat(failed).as("of today").exists();
    Files.setLastModifiedTime(failed, FileTime.from(Instant.now().minus(Duration.ofHours(25))));
    said(end(learns.start()));
    assertThat(failed).as("of yesterday").doesNotExist();
  }

  /** What learns in the background is not waited for. */
  private static Process end(Process p) throws InterruptedException {
    p.waitFor();
    return p;
  }

  private String checksum() throws Exception {
    Process p =
        new ProcessBuilder(
                "sh", "-c", "cksum < '%s' | cut -d ' ' -f 1".formatted(jdk.resolve("release")))
            .start();
    return said(p).strip();
  }
}
