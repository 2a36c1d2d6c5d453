package nocking.app;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Locale;
import javafx.scene.Scene;

/**
 * How long the interface thread was busy at a time while a test went on: one turn is what an action
 * of the mouse or keyboard sets off, or the styling and layout of one pulse. A line for each test
 * goes into {@code target/turns.csv}; the machine is too uneven for a test to hold a limit.
 */
final class Turns {
  private static final Path REPORT = Path.of("target", "turns.csv");
  private static final double FRAME_MS = 1000 / 60.0;

  private static int turns;
  private static int late;
  private static double worst;
  private static String what = "";

  private long layoutFrom;

  private Turns() {}

  /** Listens to the pulses of a scene; on the interface thread. */
  static void watch(Scene scene) {
    var t = new Turns();
    scene.addPreLayoutPulseListener(() -> t.layoutFrom = System.nanoTime());
    scene.addPostLayoutPulseListener(() -> ended("layout", t.layoutFrom));
  }

  /** Runs an action and notes its time; on the interface thread. */
  static void of(Runnable action) {
    long from = System.nanoTime();
    action.run();
    ended("action", from);
  }

  private static void ended(String kind, long from) {
    double ms = (System.nanoTime() - from) / 1e6;
    turns++;
    if (ms > FRAME_MS) late++;
    if (ms > worst) {
      worst = ms;
      what = kind;
    }
  }

  /** Writes the line of a test and begins anew; on the interface thread. */
  static void report(String test) {
    String line = String.format(Locale.ROOT, "%s,%d,%d,%.1f,%s%n", test, turns, late, worst, what);
    try {
      Files.createDirectories(REPORT.getParent());
      Files.writeString(REPORT, line, StandardOpenOption.CREATE, StandardOpenOption.APPEND);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    turns = 0;
    late = 0;
    worst = 0;
    what = "";
  }
}
