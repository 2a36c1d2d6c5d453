package nocking.element;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.List;
import java.util.function.BiFunction;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/** A sensor, a conditioning stage or a converter: a record whose components are parameters. */
public interface Element {

  /** What the element is called on the strip, for example {@code Divider}. */
  String title();

  /** Its values in a few words, for example {@code 5.1 k over 10 k}. */
  String summary();

  /** The parameters in the order of the record. */
  default List<Field> fields() {
    return ElementFields.of(getClass());
  }

  /** Names and labels of the components that are a choice. */
  default List<Chosen> choices() {
    return ElementFields.choices(this);
  }

  /**
   * One choice of an element.
   *
   * @param name record component
   * @param value what is chosen now
   */
  record Chosen(String name, String label, Enum<?> value) {}

  /** The same element with a component other than a parameter changed. */
  static <T extends Element> T choose(T element, String component, Object value) {
    return rebuilt(element, (name, old) -> name.equals(component) ? value : old);
  }

  /** Value of one parameter; null when it is optional and empty. */
  default Value value(Field field) {
    return ElementFields.read(this, field.name());
  }

  /** Field whose own symbol is this. */
  default Field field(String symbol) {
    return fields().stream()
        .filter(f -> f.symbol().equals(symbol))
        .findFirst()
        .orElseThrow(() -> new IllegalArgumentException(title() + " has no parameter " + symbol));
  }

  /** Number of a parameter by its own symbol. */
  default double number(String symbol) {
    return value(field(symbol)).number();
  }

  /**
   * Checks every parameter against its valid range, and that every choice is made.
   *
   * @throws QuantityException one sentence naming the element and the parameter
   */
  default void require(Unit quantity) {
    for (Chosen c : choices()) {
      if (c.value() == null) {
        throw new QuantityException("%s: %s is missing".formatted(title(), c.label()));
      }
    }
    for (Field field : fields()) {
      try {
        field.require(value(field), quantity);
      } catch (QuantityException e) {
        throw new QuantityException(title() + ": " + e.getMessage());
      }
    }
  }

  /** The same element with one parameter changed. */
  static <T extends Element> T with(T element, Field field, Value value) {
    return replace(element, List.of(field), (f, old) -> value);
  }

  /** The same element with some of its parameters changed. */
  static <T extends Element> T replace(
      T element, List<Field> changed, BiFunction<Field, Value, Value> change) {
    return rebuilt(
        element,
        (name, old) -> {
          for (Field f : changed) {
            if (f.name().equals(name)) return change.apply(f, (Value) old);
          }
          return old;
        });
  }

  @SuppressWarnings("unchecked")
  private static <T extends Element> T rebuilt(
      T element, BiFunction<String, Object, Object> component) {
    RecordComponent[] components = element.getClass().getRecordComponents();
    Object[] arguments = new Object[components.length];
    try {
      for (int i = 0; i < components.length; i++) {
        Object old = components[i].getAccessor().invoke(element);
        arguments[i] = component.apply(components[i].getName(), old);
      }
      var types = Arrays.stream(components).map(RecordComponent::getType).toArray(Class<?>[]::new);
      return (T) element.getClass().getDeclaredConstructor(types).newInstance(arguments);
    } catch (InvocationTargetException e) {
      if (e.getCause() instanceof RuntimeException cause) throw cause;
      throw new IllegalStateException(e);
    } catch (ReflectiveOperationException e) {
      throw new IllegalStateException("an element is a public record", e);
    }
  }
}
