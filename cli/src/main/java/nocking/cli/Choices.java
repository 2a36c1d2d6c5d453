package nocking.cli;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import nocking.element.Titled;
import nocking.quantity.QuantityException;

/** One of an enum's values from a word of the command line. */
final class Choices {
  private Choices() {}

  /**
   * @param wanted name of the value with dashes, its title, or the first word of that
   * @throws QuantityException naming the values that there are
   */
  static <E> E read(List<E> values, String key, String wanted) {
    String word = wanted.strip();
    for (E e : values) {
      boolean titled =
          e instanceof Titled t && (t.title().equals(word) || t.title().startsWith(word + " "));
      if (titled || name(e).equals(word.toLowerCase(Locale.ROOT))) return e;
    }
    throw new QuantityException(
        "%s=%s: expected one of %s"
            .formatted(key, word, String.join(", ", values.stream().map(Choices::name).toList())));
  }

  static <E> E read(E[] values, String key, String wanted) {
    return read(Arrays.asList(values), key, wanted);
  }

  private static String name(Object e) {
    return ((Enum<?>) e).name().toLowerCase(Locale.ROOT).replace('_', '-');
  }
}
