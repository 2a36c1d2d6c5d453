package nocking.app.step.define;

import javafx.util.StringConverter;
import nocking.channel.QuantityKind;

/** Shows a kind of quantity in words. */
final class KindWords extends StringConverter<QuantityKind> {
  @Override
  public String toString(QuantityKind kind) {
    return kind == null ? "" : kind.title();
  }

  @Override
  public QuantityKind fromString(String text) {
    for (QuantityKind k : QuantityKind.values()) if (k.title().equals(text)) return k;
    return null;
  }
}
