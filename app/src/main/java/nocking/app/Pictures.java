package nocking.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.embed.swing.SwingFXUtils;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ToggleButton;
import javafx.scene.image.WritableImage;
import javafx.stage.Stage;
import javax.imageio.ImageIO;
import nocking.app.desk.Aside;
import nocking.app.desk.Desk;
import nocking.app.shell.Shell;
import nocking.app.theme.Theme;
import nocking.book.BookException;
import nocking.book.BookException.Cause;
import nocking.book.FileTrouble;
import nocking.channel.WorkStep;
import nocking.run.RunProgress.Phase;

/** Opens the demo book offscreen, visits every main view, and writes one picture of each. */
final class Pictures {
  private static final double WIDTH = 1280;
  private static final double HEIGHT = 800;

  /** Stands for waiting until a run is in its middle. */
  private static final String MID_RUN = "mid-run";

  /** Stands for the window of the bench: what follows is pressed there, and it is the picture. */
  private static final String BENCH = "simulated-bench";

  /**
   * @param press ids of the buttons that open a part of the view, with a space between; {@code
   *     id=a_b} chooses 'a b' from a list
   */
  private record View(
      String name,
      String tag,
      WorkStep step,
      Aside aside,
      double probe,
      boolean dark,
      String press) {
    View(String name, String tag, WorkStep step, double probe, boolean dark, String press) {
      this(name, tag, step, null, probe, dark, press);
    }

    View(String name, String tag, WorkStep step, double probe, boolean dark) {
      this(name, tag, step, probe, dark, "");
    }

    View(String name, String tag, Aside aside, double probe) {
      this(name, tag, WorkStep.WIRE, aside, probe, false, "");
    }
  }

  private static final List<View> VIEWS =
      List.of(
          new View("define", "BL-P1", WorkStep.DEFINE, 38, false, "define-view-which-range?"),
          new View(
              "condition-parts",
              "BL-P1",
              WorkStep.CONDITION,
              38,
              false,
              "condition-view-parts wanted-choose"),
          new View("condition", "IN-T2", WorkStep.CONDITION, 9.62, false, "condition-view-output"),
          new View("wire", "SG-P1", WorkStep.WIRE, 41, false, "wire-look-faults"),
          new View("wire-bands", "FD-S1", WorkStep.WIRE, 2, false, "wire-look-bands"),
          new View("diagnose", "SG-P1", Aside.DIAGNOSE, 0),
          new View("practice", "BL-P1", Aside.PRACTICE, 30),
          new View("collect", "BL-P1", WorkStep.COLLECT, 38, false),
          new View(
              "collect-trim",
              "SG-P1",
              WorkStep.COLLECT,
              0,
              true,
              "collect-view-run run-kind=mechanical_trim"),
          new View("bench", "RW-T1", WorkStep.COLLECT, 12, false, BENCH + " bench-to-2"),
          new View(
              "collect-run",
              "RW-T1",
              WorkStep.COLLECT,
              12,
              false,
              "collect-view-run run-pace-×60 run-begin " + MID_RUN),
          new View("fit", "OX-D1", WorkStep.FIT, 9.1, false),
          new View("fit-curve", "RW-T1", WorkStep.FIT, 12, false, "fit-look-curve"),
          new View("table", "SC-A1", WorkStep.TABLE, 37.4, false),
          new View("table-list", "RW-T1", WorkStep.TABLE, 12, false, "table-look-list-to-type-in"),
          new View("table-code", "SC-A1", WorkStep.TABLE, 37.4, true, "table-look-code"),
          new View("table-rehearsal", "SC-A1", WorkStep.TABLE, 37.4, false, "table-look-rehearsal"),
          new View("check", "IN-T2", WorkStep.CHECK, 9.62, false),
          new View("record", "IN-T2", WorkStep.RECORD, 9.62, false));

  private Pictures() {}

  /** True while the fourth point of the run under way settles. */
  private static boolean midRun(Desk desk) {
    return desk.runs()
        .now()
        .map(n -> n.points().size() >= 3 && n.phase() == Phase.SETTLING)
        .orElse(false);
  }

  /**
   * @return the files written
   * @throws BookException when the folder cannot be written
   */
  static List<Path> write(Path folder) {
    try {
      Files.createDirectories(folder);
    } catch (IOException e) {
      throw new BookException(
          Cause.OUTSIDE, folder + " cannot be made: " + FileTrouble.why(folder, e), e);
    }
    var started = new CountDownLatch(1);
    Platform.startup(started::countDown);
    Quiet.await(started);
    var written = new ArrayList<Path>();
    Path book = DemoBook.fresh();
    Desk desk =
        onInterface(
            () -> {
              Theme.install();
              var d = new Desk[1];
              d[0] = new Desk(DesktopApp.store(book, () -> DesktopApp.tell(d[0])));
              return d[0];
            });
    Shell shell = onInterface(() -> open(desk));
    for (View v : VIEWS) {
      onInterface(
          () -> {
            desk.dark(v.dark);
            desk.select(desk.book().byTag(v.tag).orElseThrow().id());
            desk.step(v.step);
            if (v.aside != null) desk.aside(v.aside);
            desk.probe(v.probe);
            return null;
          });
      Quiet.await();
      Scene scene = shell.scene();
      for (String id : v.press.isEmpty() ? new String[0] : v.press.split(" ")) {
        if (id.equals(MID_RUN)) {
          while (!onInterface(() -> midRun(desk))) Quiet.await();
          continue;
        }
        if (id.equals(BENCH)) {
          scene = onInterface(shell::bench);
          continue;
        }
        Scene here = scene;
        onInterface(
            () -> {
              press(here, id);
              return null;
            });
        Quiet.await();
      }
      Scene shown = scene;
      WritableImage image = onInterface(() -> shown.snapshot(null));
      written.add(save(image, folder.resolve(v.name + ".png")));
    }
    onInterface(
        () -> {
          desk.store().close();
          return null;
        });
    DemoBook.discard();
    return written;
  }

  private static void press(Scene scene, String id) {
    String[] choice = id.split("=");
    switch (scene.lookup("#" + choice[0])) {
      case ComboBox<?> box -> choose(box, choice[1].replace('_', ' '));
      case ToggleButton b -> b.setSelected(true);
      case Button b -> b.fire();
      default -> throw new IllegalStateException("no button is called " + id);
    }
  }

  private static <T> void choose(ComboBox<T> box, String title) {
    T value =
        box.getItems().stream()
            .filter(v -> String.valueOf(v).equals(title))
            .findFirst()
            .orElseThrow();
    box.setValue(value);
  }

  private static Shell open(Desk desk) {
    var stage = new Stage();
    var shell = new Shell(desk, new DesktopFiles(stage), new NoBooks(), WIDTH, HEIGHT);
    stage.setScene(shell.scene());
    stage.show();
    shell.scene().getRoot().requestFocus();
    return shell;
  }

  /** Pictures stay on the demo book. */
  private static final class NoBooks implements Shell.Books {
    @Override
    public void open(Path file) {
      throw new IllegalStateException("pictures open no other book");
    }

    @Override
    public void openDemo() {
      throw new IllegalStateException("the demo book is open");
    }
  }

  private static Path save(WritableImage image, Path file) {
    try {
      if (!ImageIO.write(SwingFXUtils.fromFXImage(image, null), "png", file.toFile())) {
        throw new IllegalStateException("every Java can write PNG");
      }
      return file;
    } catch (IOException e) {
      throw new BookException(
          Cause.OUTSIDE, file + " cannot be written: " + FileTrouble.why(file, e), e);
    }
  }

  private static <T> T onInterface(Supplier<T> work) {
    return CompletableFuture.supplyAsync(work, Platform::runLater).join();
  }
}
