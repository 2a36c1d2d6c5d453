package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import javafx.embed.swing.SwingFXUtils;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.IndexedCell;
import javafx.scene.control.Labeled;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.image.WritableImage;
import javafx.scene.text.Text;
import javax.imageio.ImageIO;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.demo.Hatchery;
import org.assertj.core.api.SoftAssertions;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Every view at both sizes, by day and by night, with a usual channel, with long names and empty:
 * no label is cut, every text can be read on its ground, and no whole page has to be scrolled.
 * {@code -Dnocking.views=FOLDER} keeps a picture of each.
 */
@Tag("campaign")
@Timeout(value = 300, unit = TimeUnit.SECONDS, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
class ReadableTest extends WindowTest {
  private static final double LEAST = 4.5;

  /** Height of the window at which no whole page has a scroll bar. */
  private static final double FULL = 800;

  private final Map<String, String> cut = new LinkedHashMap<>();
  private final Set<String> pale = new LinkedHashSet<>();
  private final Set<String> scrolled = new LinkedHashSet<>();
  private int views;
  private double height;

  @ParameterizedTest
  @CsvSource({
    "BL-P1, 1280, 800, false",
    "RW-T1, 1100, 700, false",
    "AE-V1, 1280, 800, true",
    "FD-S1, 1100, 700, true",
    "IN-T2, 1100, 700, false",
    "SC-A1, 1100, 700, false",
    "long, 1280, 800, false",
    "long, 1100, 700, true",
    "empty, 1280, 800, true",
    "empty, 1100, 700, false",
  })
  void everyViewCanBeRead(String tag, double width, double height, boolean dark) {
    Book demo = Hatchery.book(Hatchery.SEED);
    Book book =
        switch (tag) {
          case "long" -> demo.with(longNames(demo.byTag("BL-P1").orElseThrow()));
          case "empty" -> new Book(List.of(Channel.blank("e", "CH-1")));
          default -> demo;
        };
    this.height = height;
    open(book);
    Channel c =
        switch (tag) {
          case "long" -> desk.book().byTag("RACEWAY-BLOWER-P1").orElseThrow();
          case "empty" -> desk.book().channels().getFirst();
          default -> desk.book().byTag(tag).orElseThrow();
        };
    hands.run(
        () -> {
          shell.scene().getWindow().setWidth(width);
          shell.scene().getWindow().setHeight(height);
          desk.dark(dark);
          desk.select(c.id());
        });
    settled();
    String where = "%s %.0f%s".formatted(tag, width, dark ? " dark" : "");
    for (WorkStep step : WorkStep.values()) {
      hands.run(() -> desk.step(step));
      settled();
      visit(where + " " + step.title(), new LinkedHashSet<>(), 0);
    }
    chooser(where);
    for (String aside : List.of("tab-diagnose", "tab-practice")) {
      hands.click(aside);
      settled();
      measure(where + " " + aside);
    }
    assertThat(views).isGreaterThan(tag.equals("empty") ? 12 : 25);
    SoftAssertions.assertSoftly(
        softly -> {
          softly.assertThat(cut).as("cut").isEmpty();
          softly.assertThat(pale).as("pale").isEmpty();
          softly.assertThat(scrolled).as("pages that scroll").isEmpty();
        });
  }

  /** What stands in the place of the sensor while one is chosen, or a datasheet is read. */
  private void chooser(String where) {
    if (!desk.editable()) return;
    hands.run(() -> desk.step(WorkStep.DEFINE));
    settled();
    if (!hands.has("have-datasheet")) fire("have-other");
    measure(where + " chooser");
    fire("have-datasheet");
    measure(where + " datasheet, empty");
    TextArea text = hands.node("datasheet-text");
    hands.run(
        () ->
            text.setText(
                "Supply voltage 5 V\nOutput signal 0.5–4.5 V ratiometric\nType   P4   P10\n"
                    + "Measuring range (bar)   0…4   0…10\nProof pressure (bar)   8   20\n"
                    + "Response time < 2 ms, measured as the maker's own instructions have it\n"));
    settled();
    measure(where + " datasheet");
    fire("datasheet-back");
  }

  /** A button that may lie further down than a small window shows. */
  private void fire(String id) {
    ButtonBase button = hands.node(id);
    hands.run(button::fire);
    settled();
  }

  private static Channel longNames(Channel c) {
    return c.withId("long")
        .define(
            d ->
                d.withTag("RACEWAY-BLOWER-P1")
                    .withName("Blower manifold behind the second heat exchanger, upper raceways"));
  }

  /** The view as it is, and then with each of its segments pressed, to three levels. */
  private void visit(String where, Set<String> pressed, int level) {
    measure(where);
    if (level == 3) return;
    var ids = new ArrayList<String>();
    hands.run(() -> segments(shell.scene().getRoot(), ids));
    for (String id : ids) {
      if (id.startsWith("define-gauge") || id.startsWith("datasheet") || !pressed.add(id)) continue;
      if (!hands.has(id)) continue;
      hands.run(
          () -> {
            if (shell.scene().lookup("#" + id) instanceof ToggleButton b) b.setSelected(true);
          });
      settled();
      visit(where + " " + id, pressed, level + 1);
    }
  }

  private static void segments(Node n, List<String> ids) {
    if (!n.isVisible() || n.isDisabled()) return;
    boolean choice = n.getStyleClass().contains("segments");
    if (choice && n instanceof Parent p) {
      for (Node b : p.getChildrenUnmodifiable()) {
        // What changes the channel is no view.
        boolean view =
            b.getId() != null
                && b.getId()
                    .matches(
                        "(?:define-view|condition-view|form|wire-look|band-part|fault-part|fit-look|table-look|table-code|collect-view|record-view).*");
        if (view && !((ToggleButton) b).isSelected()) ids.add(b.getId());
      }
    } else if (n instanceof Parent p) {
      p.getChildrenUnmodifiable().forEach(c -> segments(c, ids));
    }
  }

  private void measure(String where) {
    views++;
    hands.run(
        () -> {
          Node root = shell.scene().getRoot();
          look(root, where);
          for (Contrast.Measured m : Contrast.of(root)) {
            if (m.contrast() < LEAST) {
              pale.add(
                  "%s in %s '%s' %.2f %s"
                      .formatted(
                          m.node().getStyleClass(),
                          m.node().getParent().getParent(),
                          m.text(),
                          m.contrast(),
                          ((Text) m.node()).getFill()));
            }
          }
          keep(where);
        });
  }

  private void look(Node n, String where) {
    if (!n.isVisible()) return;
    if (n instanceof Labeled l
        && l.getText() != null
        && !l.getText().isBlank()
        && !(n instanceof IndexedCell<?>)
        && !named(l)) {
      if (l.lookup(".text") instanceof Text t && !t.getText().equals(l.getText())) {
        cut.putIfAbsent("'%s' of '%s'".formatted(t.getText(), l.getText()), where);
      }
    }
    if (n instanceof TextField f && f.getText().isEmpty() && f.getPromptText() != null) {
      var t = new Text(f.getPromptText());
      t.setFont(f.getFont());
      double room = f.getWidth() - f.getInsets().getLeft() - f.getInsets().getRight();
      if (t.getLayoutBounds().getWidth() > room + 0.5) {
        cut.putIfAbsent("prompt '%s' in %s".formatted(f.getPromptText(), f.getId()), where);
      }
    }
    if (n instanceof ScrollPane pane && height >= FULL && wholePage(pane)) {
      double more =
          pane.getContent().getLayoutBounds().getHeight() - pane.getViewportBounds().getHeight();
      if (more > 1) scrolled.add("%s: by %.0f".formatted(where, more));
    }
    if (n instanceof Parent p) p.getChildrenUnmodifiable().forEach(c -> look(c, where));
  }

  /** Words of the user's own may be of any length: the whole of them stands in a tooltip. */
  private static boolean named(Labeled l) {
    return l.getTooltip() != null && l.getTooltip().getText().contains(l.getText());
  }

  /** As wide as a page, and nearly as high as all the room that there is below the strip. */
  private static boolean wholePage(ScrollPane pane) {
    return pane.getWidth() > 440 && pane.getHeight() > 420;
  }

  private void keep(String where) {
    String folder = System.getProperty("nocking.views");
    if (folder == null) return;
    WritableImage image = shell.scene().snapshot(null);
    try {
      File file = new File(folder, where.replaceAll("[^A-Za-z0-9-]+", "_") + ".png");
      ImageIO.write(SwingFXUtils.fromFXImage(image, null), "png", file);
    } catch (IOException e) {
      throw new IllegalStateException(e);
    }
  }
}
