package nocking.element;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import nocking.quantity.Value;

/** The parameters of each element class, read from its record components once. */
final class ElementFields {
  private static final ClassValue<List<Field>> FIELDS =
      new ClassValue<>() {
        @Override
        protected List<Field> computeValue(Class<?> type) {
          return Arrays.stream(type.getRecordComponents())
              .map(
                  c -> {
                    Parameter p = c.getAnnotation(Parameter.class);
                    return p == null ? null : new Field(c.getName(), p);
                  })
              .filter(Objects::nonNull)
              .toList();
        }
      };

  private ElementFields() {}

  static List<Field> of(Class<?> type) {
    return FIELDS.get(type);
  }

  static Value read(Element element, String name) {
    try {
      return (Value) element.getClass().getMethod(name).invoke(element);
    } catch (ReflectiveOperationException e) {
      throw new IllegalStateException("an element is a public record", e);
    }
  }

  static List<Element.Chosen> choices(Element element) {
    return Arrays.stream(element.getClass().getRecordComponents())
        .filter(c -> c.isAnnotationPresent(Choice.class))
        .map(
            c -> {
              try {
                var value = (Enum<?>) c.getAccessor().invoke(element);
                String label = c.getAnnotation(Choice.class).label();
                return new Element.Chosen(c.getName(), label, value);
              } catch (ReflectiveOperationException e) {
                throw new IllegalStateException("an element is a public record", e);
              }
            })
        .toList();
  }
}
