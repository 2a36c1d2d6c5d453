package nocking.app.stage;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import javafx.scene.layout.VBox;
import nocking.algebra.Notation;
import nocking.app.control.EntryField;
import nocking.app.desk.Desk;
import nocking.channel.Channel;
import nocking.element.Element;
import nocking.element.Field;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/** Fields for the parameters of an element, made from what its class states about them. */
public final class ElementForm extends VBox {
  private final Desk desk;
  private final String prefix;
  private final List<EntryField> entries = new ArrayList<>();
  private Class<?> shape;
  private String shapeKey = "";

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
    Unit quantity = desk.channel().orElseThrow().unit();
    List<Field> fields = element.fields();
    for (int i = 0; i < fields.size(); i++) {
      Value v = element.value(fields.get(i));
      entries.get(i).show(v, fields.get(i).unit(quantity));
      entries.get(i).field().setEditable(desk.editable());
    }
  }

  /** Forgets the fields; the next element gets its own. */
  public void clear() {
    shape = null;
    getChildren().clear();
  }

  private void rebuild(Element element, String key, Supplier<Element> current, Writer writer) {
    getChildren().clear();
    entries.clear();
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
      entry.help(help(field));
      entries.add(entry);
      getChildren().add(entry);
    }
  }

  private static String help(Field field) {
    return field.label()
        + ", symbol "
        + field.symbol()
        + ". Takes units, prefixes and arithmetic: 4k7, 2*4k7, 530 mV, 25 psi."
        + (field.parameter().optional() ? " May stay empty." : "");
  }

  /** A Greek symbol as its letter. */
  private static String pretty(String symbol) {
    return Notation.greek(symbol);
  }
}
