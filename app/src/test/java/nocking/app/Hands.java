package nocking.app;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.stream.Stream;
import javafx.application.Platform;
import javafx.event.Event;
import javafx.event.EventType;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.robot.Robot;
import javafx.stage.Window;
import nocking.app.control.WheelScroll;

/**
 * Mouse and keyboard for tests. All events of one action happen in one turn of the interface
 * thread; then it waits until everything is laid out and nothing is under way.
 */
final class Hands {
  private final Scene scene;
  private final Robot robot = ask(Robot::new);
  private int clicks;
  private int keys;

  Hands(Scene scene) {
    this.scene = scene;
  }

  /** Runs on the interface thread and brings the answer back. */
  static <T> T ask(Callable<T> question) {
    var task = new FutureTask<>(question);
    // A question inside a question would wait for itself.
    if (Platform.isFxApplicationThread()) task.run();
    else Platform.runLater(task);
    try {
      return task.get();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    } catch (ExecutionException e) {
      if (e.getCause() instanceof RuntimeException cause) throw cause;
      if (e.getCause() instanceof Error cause) throw cause;
      throw new IllegalStateException(e.getCause());
    }
  }

  private void act(Runnable action) {
    ask(
        () -> {
          Turns.of(action);
          return null;
        });
    settle();
  }

  static void settle() {
    Quiet.await();
  }

  /** The visible node with an id. */
  <T extends Node> T node(String id) {
    return ask(() -> find(id));
  }

  @SuppressWarnings("unchecked")
  private <T extends Node> T find(String id) {
    Set<Node> all = scene.getRoot().lookupAll("#" + id);
    return (T)
        all.stream()
            .filter(
                n -> n.isVisible() && n.getScene() != null && n.getBoundsInLocal().getWidth() > 0)
            .findFirst()
            .orElseThrow(() -> new AssertionError("nothing visible is called " + id));
  }

  boolean has(String id) {
    return ask(
        () ->
            scene.getRoot().lookupAll("#" + id).stream()
                .anyMatch(n -> n.getScene() != null && shown(n)));
  }

  /** What stands in something that is not shown is not to be seen either. */
  private static boolean shown(Node n) {
    return Stream.<Node>iterate(n, Objects::nonNull, Node::getParent).allMatch(Node::isVisible);
  }

  private static Point2D centre(Node n) {
    Bounds b = n.localToScreen(n.getBoundsInLocal());
    return new Point2D(b.getCenterX(), b.getCenterY());
  }

  /** Scrolls to a node, as the wheel would. */
  void reach(Node n) {
    act(
        () -> {
          for (Node p = n.getParent(); p != null; p = p.getParent()) {
            if (p instanceof ScrollPane pane) WheelScroll.reveal(pane, n);
          }
        });
  }

  /** Presses of the mouse since the window was opened. */
  int clicks() {
    return clicks;
  }

  /** Strokes of keys since the window was opened; keys that are held together are one. */
  int keys() {
    return keys;
  }

  Hands click(String id) {
    clicks++;
    Node n = node(id);
    reach(n);
    act(
        () -> {
          Point2D at = centre(n);
          robot.mouseMove(at);
          robot.mousePress(MouseButton.PRIMARY);
          robot.mouseRelease(MouseButton.PRIMARY);
        });
    return this;
  }

  /** Clicks at a place of a node, in its own coordinates. */
  Hands clickAt(Node n, Point2D at) {
    clicks++;
    act(
        () -> {
          Point2D corner = centre(n);
          Bounds b = n.getBoundsInLocal();
          robot.mouseMove(corner.add(at.getX() - b.getCenterX(), at.getY() - b.getCenterY()));
          robot.mousePress(MouseButton.PRIMARY);
          robot.mouseRelease(MouseButton.PRIMARY);
        });
    return this;
  }

  /** Presses on a node, moves in small steps, lets go. */
  Hands drag(Node n, double dx, double dy) {
    clicks++;
    act(
        () -> {
          Point2D at = centre(n);
          robot.mouseMove(at);
          robot.mousePress(MouseButton.PRIMARY);
          int steps = (int) Math.max(1, Math.hypot(dx, dy) / 5);
          for (int i = 1; i <= steps; i++) {
            robot.mouseMove(at.add(dx * i / steps, dy * i / steps));
          }
          robot.mouseRelease(MouseButton.PRIMARY);
        });
    return this;
  }

  /**
   * A drag that leaves the node, as a real platform delivers it: all of its events go to the node
   * that was pressed. JavaFX's headless platform ends that gesture at the first move.
   */
  Hands dragAway(Node n, double dx) {
    act(
        () -> {
          Bounds b = n.localToScene(n.getBoundsInLocal());
          double x = b.getCenterX();
          double y = b.getCenterY();
          fire(n, MouseEvent.MOUSE_PRESSED, x, y);
          for (int i = 1; i <= 20; i++) fire(n, MouseEvent.MOUSE_DRAGGED, x + dx * i / 20, y);
          fire(n, MouseEvent.MOUSE_RELEASED, x + dx, y);
        });
    return this;
  }

  private static void fire(Node n, EventType<MouseEvent> type, double x, double y) {
    boolean down = type != MouseEvent.MOUSE_RELEASED;
    Event.fireEvent(
        n,
        new MouseEvent(
            type,
            x,
            y,
            x,
            y,
            MouseButton.PRIMARY,
            1,
            false,
            false,
            false,
            false,
            down,
            false,
            false,
            false,
            false,
            false,
            null));
  }

  /** Types letters into whatever has the focus. */
  Hands type(String text) {
    keys += text.length();
    act(
        () -> {
          for (char c : text.toCharArray()) {
            Node owner = scene.getFocusOwner();
            String s = String.valueOf(c);
            KeyCode code = KeyCode.UNDEFINED;
            Event.fireEvent(
                owner, new KeyEvent(KeyEvent.KEY_PRESSED, s, s, code, false, false, false, false));
            owner = scene.getFocusOwner();
            Event.fireEvent(
                owner, new KeyEvent(KeyEvent.KEY_TYPED, s, s, code, false, false, false, false));
            Event.fireEvent(
                scene.getFocusOwner(),
                new KeyEvent(KeyEvent.KEY_RELEASED, s, s, code, false, false, false, false));
          }
        });
    return this;
  }

  /** Presses keys together, modifiers first. */
  Hands press(KeyCode... together) {
    keys++;
    act(
        () -> {
          for (KeyCode k : together) robot.keyPress(k);
          List<KeyCode> back = Arrays.asList(together).reversed();
          for (KeyCode k : back) robot.keyRelease(k);
        });
    return this;
  }

  /** Clears a field and types into it. */
  Hands fill(String id, String text) {
    click(id);
    press(KeyCode.CONTROL, KeyCode.A);
    press(KeyCode.DELETE);
    return type(text);
  }

  /** Types over what stands in a field: a field that is clicked is marked as a whole. */
  Hands enter(String id, String text) {
    return click(id).type(text);
  }

  /** Chooses an item of the menu that is open. */
  Hands choose(String itemId) {
    clicks++;
    act(
        () -> {
          MenuItem item =
              Window.getWindows().stream()
                  .filter(w -> w instanceof ContextMenu)
                  .flatMap(w -> ((ContextMenu) w).getItems().stream())
                  .filter(i -> itemId.equals(i.getId()))
                  .findFirst()
                  .orElseThrow(() -> new AssertionError("no open menu has " + itemId));
          Node label = item.getStyleableNode();
          Point2D at = centre(label);
          robot.mouseMove(at);
          robot.mousePress(MouseButton.PRIMARY);
          robot.mouseRelease(MouseButton.PRIMARY);
        });
    return this;
  }

  void run(Runnable action) {
    act(action);
  }
}
