package nocking.app.step;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.algebra.Notation;
import nocking.app.control.DropDown;
import nocking.app.control.EntryField;
import nocking.app.desk.Desk;
import nocking.channel.Channel;
import nocking.element.Element;
import nocking.element.Field;
import nocking.element.Titled;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/** Fields for the parameters and choices of an element, made from what its class states. */
public final class ElementForm extends VBox {
  private final Desk desk;
  private final String prefix;
  private final List<EntryField> entries = new ArrayList<>();
  private final List<ComboBox<Enum<?>>> boxes = new ArrayList<>();
  private Class<?> shape;
  private String shapeKey = "";
  private boolean showing;

  public ElementForm(Desk desk, String prefix) {
    this.desk = desk;
    this.prefix = prefix;
    setSpacing(4);
  }

  /** Writes an element back into the channel. */
  @FunctionalInterface
  public interface Writer {
    UnaryOperator<Channel> write(Element element);
  }

  /**
   * Shows an element; fields are made anew only for another kind or place.
   *
   * @param key place of the element, so that edits of different places stay apart
   * @param current the element as it is in the document now
   */
  public void show(Element element, String key, Supplier<Element> current, Writer writer) {
    if (element.getClass() != shape || !key.equals(shapeKey)) {
      shape = element.getClass();
      shapeKey = key;
      rebuild(element, key, current, writer);
    }
    showing = true;
    Unit quantity = desk.channel().orElseThrow().unit();
    List<Field> fields = element.fields();
    for (int i = 0; i < fields.size(); i++) {
      Value v = element.value(fields.get(i));
      entries.get(i).show(v, fields.get(i).unit(quantity));
      entries.get(i).field().setEditable(desk.editable());
    }
    List<Element.Chosen> choices = element.choices();
    for (int i = 0; i < choices.size(); i++) {
      boxes.get(i).setValue(choices.get(i).value());
      boxes.get(i).setDisable(!desk.editable());
    }
    showing = false;
  }

  /** Forgets the fields; the next element gets its own. */
  public void clear() {
    shape = null;
    getChildren().clear();
  }

  private void rebuild(Element element, String key, Supplier<Element> current, Writer writer) {
    getChildren().clear();
    entries.clear();
    boxes.clear();
    for (Element.Chosen c : element.choices()) getChildren().add(choice(c, current, writer));
    for (Field field : element.fields()) {
      String name = "change " + field.label().toLowerCase(Locale.ROOT);
      var entry =
          new EntryField(
              prefix + "-" + field.name(),
              field.label() + "  " + pretty(field.symbol()),
              true,
              text -> {
                Unit quantity = desk.channel().orElseThrow().unit();
                Element now = current.get();
                Value value = field.read(text, quantity);
                if (value != null && value.equals(now.value(field))) return;
                Element changed = Element.with(now, field, value);
                desk.edit(name, key + "." + field.name(), writer.write(changed));
              },
              desk::seal);
      entry.help(help(field)).prompt(field.parameter().whenEmpty());
      entries.add(entry);
      getChildren().add(entry);
    }
  }

  private HBox choice(Element.Chosen chosen, Supplier<Element> current, Writer writer) {
    var box = new DropDown<Enum<?>>();
    box.setId(prefix + "-" + chosen.name());
    box.setAccessibleText(chosen.label());
    box.getItems().setAll(chosen.value().getDeclaringClass().getEnumConstants());
    box.titled(e -> ((Titled) e).title());
    box.setMaxWidth(Double.MAX_VALUE);
    box.valueProperty()
        .addListener(
            (o, before, now) -> {
              if (showing || now == null) return;
              Element changed = Element.choose(current.get(), chosen.name(), now);
              desk.edit(
                  "change " + chosen.label().toLowerCase(Locale.ROOT), "", writer.write(changed));
            });
    boxes.add(box);
    var label = new Label(chosen.label());
    label.getStyleClass().add("entry-label");
    label.setMinWidth(132);
    label.setWrapText(true);
    var row = new HBox(6, label, box);
    row.getStyleClass().add("entry");
    row.setAlignment(Pos.CENTER_LEFT);
    HBox.setHgrow(box, Priority.ALWAYS);
    return row;
  }

  private static String help(Field field) {
    return field.label()
        + ", symbol "
        + field.symbol()
        + ". Takes units, prefixes and arithmetic: 4k7, 2*4k7, 530 mV, 25 psi. A tolerance may"
        + " follow: 4k7 ±1% 50ppm."
        + (field.optional() ? " May stay empty." : "");
  }

  /** A Greek symbol as its letter. */
  private static String pretty(String symbol) {
    return Notation.greek(symbol);
  }
}
