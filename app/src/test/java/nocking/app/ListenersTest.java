package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.Array;
import java.lang.reflect.Field;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import javafx.beans.Observable;
import javafx.beans.value.ObservableValue;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.IndexedCell;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** A window that is used for a long time listens no more than one that was just opened. */
@Tag("campaign")
@Timeout(value = 180, unit = TimeUnit.SECONDS, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
class ListenersTest extends WindowTest {
  private static final int ROUNDS = 5;

  @Test
  void goingFromChannelToChannelLeavesNoListenersBehind() {
    openDemo("BL-P1", WorkStep.DEFINE);
    List<String> grown = new ArrayList<>();
    for (WorkStep step : WorkStep.values()) {
      hands.run(() -> desk.step(step));
      thereAndBack(1);
      Map<String, Integer> before = listeners();
      assertThat(before).as("properties that are listened to").hasSizeGreaterThan(50);
      thereAndBack(ROUNDS);
      listeners()
          .forEach(
              (property, n) -> {
                int then = before.getOrDefault(property, n);
                if (n >= then + ROUNDS) {
                  grown.add("%s, %s: %d, then %d".formatted(step, property, then, n));
                }
              });
    }
    assertThat(grown).isEmpty();
  }

  private void thereAndBack(int times) {
    hands.run(
        () -> {
          for (int i = 0; i < times; i++) {
            for (String tag : List.of("IN-T2", "BL-P1")) {
              desk.select(desk.book().byTag(tag).map(Channel::id).orElseThrow());
            }
          }
        });
    settled();
  }

  /** How many listen to each property of what is in the window, by kind, name and property. */
  private Map<String, Integer> listeners() {
    var counts = new TreeMap<String, Integer>();
    Hands.ask(
        () -> {
          collect(shell.scene().getRoot(), counts);
          return null;
        });
    return counts;
  }

  private static void collect(Node node, Map<String, Integer> counts) {
    // Cells come and go with what is scrolled into view.
    if (node instanceof IndexedCell) return;
    for (Class<?> c = node.getClass(); c != Object.class; c = c.getSuperclass()) {
      for (Field f : c.getDeclaredFields()) {
        if (!Observable.class.isAssignableFrom(f.getType())) continue;
        Object property = value(f, node);
        if (property instanceof ObservableValue<?>) {
          String name = "%s#%s.%s".formatted(node.getTypeSelector(), node.getId(), f.getName());
          counts.merge(name, count(property), Math::max);
        }
      }
    }
    if (node instanceof Parent p) p.getChildrenUnmodifiable().forEach(n -> collect(n, counts));
  }

  /** Listeners that a property holds in its helper. */
  private static int count(Object property) {
    Object shown = named("readOnlyProperty", property);
    Object helper = named("helper", shown == null ? property : shown);
    if (helper == null) return 0;
    int n = 0;
    for (String list : List.of("invalidationListeners", "changeListeners")) {
      Object held = named(list, helper);
      if (held == null) continue;
      for (int i = 0; i < Array.getLength(held); i++) if (Array.get(held, i) != null) n++;
    }
    return Math.max(1, n);
  }

  private static Object named(String name, Object of) {
    for (Class<?> c = of.getClass(); c != null; c = c.getSuperclass()) {
      for (Field f : c.getDeclaredFields()) {
        if (f.getName().equals(name)) return value(f, of);
      }
    }
    return null;
  }

  private static Object value(Field field, Object of) {
    try {
      field.setAccessible(true);
      return field.get(of);
    } catch (IllegalAccessException e) {
      throw new IllegalStateException(e);
    }
  }
}
