package nocking.app.step;

import java.util.HashMap;
import java.util.Map;
import javafx.scene.control.TextField;
import nocking.app.desk.Desk;

/**
 * What a view has in hand before it is in the document: a way of entering, a reason half typed. It
 * belongs to the channel it was meant for, and waits there while another one is looked at.
 */
public final class InHand<T> {
  private final Desk desk;
  private final T usual;
  private final Map<String, T> held = new HashMap<>();

  /**
   * @param usual what a channel has before anything was chosen
   */
  public InHand(Desk desk, T usual) {
    this.desk = desk;
    this.usual = usual;
  }

  private String channel() {
    return desk.channel().map(c -> c.id()).orElse("");
  }

  /** What is in hand for the selected channel. */
  public T get() {
    return held.getOrDefault(channel(), usual);
  }

  public void set(T v) {
    held.put(channel(), v);
  }

  /**
   * Lets a field hold what is typed for each channel by itself.
   *
   * @return call its {@link Field#switched} when another channel is shown
   */
  public static Field of(Desk desk, TextField field) {
    return new Field(new InHand<>(desk, ""), field);
  }

  /** A field whose words are those of the channel that is shown. */
  public static final class Field {
    private final InHand<String> words;
    private final TextField field;

    private Field(InHand<String> words, TextField field) {
      this.words = words;
      this.field = field;
      field.textProperty().addListener((o, before, now) -> words.set(now));
    }

    public void switched() {
      field.setText(words.get());
    }
  }
}
