package nocking.bench.instrument;

import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;

/** Two pseudo-terminals joined to one serial line, where the machine can make such a pair. */
final class SerialPair implements AutoCloseable {
  /** The two ends of the line. */
  final Path near;

  final Path far;
  private final Process process;

  private SerialPair(Path near, Path far, Process process) {
    this.near = near;
    this.far = far;
    this.process = process;
  }

  /**
   * @param folder where the links to both ends stand while the pair is open
   * @return the pair; the test is left out where the machine makes none
   */
  static SerialPair in(Path folder) throws InterruptedException {
    Path near = folder.resolve("near");
    Path far = folder.resolve("far");
    Process process = null;
    try {
      process =
          new ProcessBuilder("socat", "pty,raw,echo=0,link=" + near, "pty,raw,echo=0,link=" + far)
              .start();
    } catch (IOException e) {
      assumeTrue(false, "this machine makes no pseudo-terminals");
    }
    while (!Files.exists(far) && process.isAlive()) process.waitFor(5, TimeUnit.MILLISECONDS);
    return new SerialPair(near, far, process);
  }

  /** Waits for the pair's end: it takes its links away itself, before the folder is emptied. */
  @Override
  public void close() {
    process.destroy();
    process.onExit().join();
  }
}
