package nocking.app.shell;

import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Scene;
import javafx.scene.control.MenuItem;
import javafx.scene.input.KeyCombination;

/** Everything that can be done by name, by key or from a menu. */
final class Commands {
  /**
   * @param keys in JavaFX's notation, for example {@code Shortcut+K}; empty for none
   */
  record Command(String name, String keys, Runnable action) {}

  private final Map<String, Command> commands = new LinkedHashMap<>();

  void add(String name, String keys, Runnable action) {
    commands.put(name, new Command(name, keys, action));
  }

  Iterable<Command> all() {
    return commands.values();
  }

  Optional<Command> find(String name) {
    return Optional.ofNullable(commands.get(name));
  }

  /** A menu item for a command; its key is shown, and works through the scene. */
  MenuItem item(String name) {
    Command c = find(name).orElseThrow(() -> new IllegalArgumentException(name));
    var item = new MenuItem(name);
    item.setId("menu-" + name.toLowerCase(Locale.ROOT).replaceAll("[^a-z]+", "-"));
    if (!c.keys.isEmpty()) item.setAccelerator(KeyCombination.valueOf(c.keys));
    item.setOnAction(e -> c.action.run());
    return item;
  }

  /** Puts the keys in force for those commands that no menu shows. */
  void accelerate(Scene scene) {
    for (Command c : commands.values()) {
      if (!c.keys.isEmpty()) {
        scene.getAccelerators().put(KeyCombination.valueOf(c.keys), c.action);
      }
    }
  }
}
