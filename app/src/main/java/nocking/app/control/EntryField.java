package nocking.app.control;

import javafx.application.Platform;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * A labelled field that tries every keystroke. What can be understood is in force at once; what
 * cannot is marked in place with the reason, and the last good value stays in force. Escape brings
 * that back.
 */
public final class EntryField extends VBox {
  /** Takes what was typed, or says why not. */
  @FunctionalInterface
  public interface Taker {
    /**
     * @throws QuantityException one sentence
     */
    void take(String text);
  }

  private final Label label = new Label();
  private final TextField field = new TextField();
  private final Label unit = new Label();
  private final StackPane unitPlace = new StackPane();
  private final Label meaning = new Label();
  private final Label reason = new Label();
  private final Taker taker;
  private final Runnable sealed;
  private String good = "";
  private boolean showing;
  private boolean taking;
  private boolean whenDone;

  /**
   * @param id of the text field, for tests and for finding it by name
   * @param sealed called when the field is left
   */
  public EntryField(String id, String title, boolean number, Taker taker, Runnable sealed) {
    this.taker = taker;
    this.sealed = sealed;
    getStyleClass().add("entry");
    label.getStyleClass().add("entry-label");
    label.setText(title);
    label.setWrapText(true);
    label.setLabelFor(field);
    field.setId(id);
    field.setAccessibleText(title);
    if (number) NumberField.of(field);
    HBox.setHgrow(field, Priority.ALWAYS);
    field.setMinWidth(60);
    field.setPrefColumnCount(9);
    unit.getStyleClass().add("unit");
    unit.setMinWidth(USE_PREF_SIZE);
    meaning.getStyleClass().add("meaning");
    reason.getStyleClass().add("reason");
    reason.setWrapText(true);
    // Fields with short units are of one length; a long unit takes what it needs.
    var strut = new Region();
    strut.getStyleClass().add("strut");
    unitPlace.getChildren().setAll(strut, unit);
    unitPlace.getStyleClass().add("unit-place");
    unitPlace.setAlignment(Pos.CENTER_LEFT);
    unitPlace.setMinWidth(USE_PREF_SIZE);
    var row = new HBox(6, label, field, unitPlace);
    row.setAlignment(Pos.CENTER_LEFT);
    getChildren().add(row);
    field.textProperty().addListener((o, before, text) -> typed(text));
    field.focusedProperty().addListener((o, before, focused) -> focus(focused));
    field.setOnKeyPressed(
        e -> {
          if (e.getCode() == KeyCode.ESCAPE && !field.getText().equals(good)) {
            set(good);
            clearReason();
            field.selectAll();
            e.consume();
          }
        });
  }

  /** A narrow field without a label in front, as on the probe. */
  public EntryField bare() {
    var row = (HBox) getChildren().getFirst();
    row.getChildren().remove(label);
    HBox.setHgrow(field, Priority.NEVER);
    field.setPrefColumnCount(6);
    field.setMinWidth(44);
    field.setMaxWidth(66);
    return this;
  }

  public EntryField help(String text) {
    field.setAccessibleHelp(text);
    return this;
  }

  public EntryField prompt(String text) {
    field.setPromptText(text);
    return this;
  }

  public TextField field() {
    return field;
  }

  /**
   * Takes the text only with Enter or when the field is left: for words of which a part means
   * something else, such as ps on the way to psi.
   */
  public EntryField whenDone() {
    whenDone = true;
    field.setOnAction(e -> finish());
    return this;
  }

  private void finish() {
    if (!field.getText().equals(good)) take(field.getText());
  }

  private void typed(String text) {
    if (showing) return;
    if (whenDone) clearReason();
    else take(text);
  }

  private void take(String text) {
    taking = true;
    try {
      taker.take(text);
      good = text;
      clearReason();
    } catch (QuantityException e) {
      reason.setText(e.getMessage());
      if (!field.getStyleClass().contains("wrong")) field.getStyleClass().add("wrong");
      if (!getChildren().contains(reason)) getChildren().add(reason);
    } finally {
      taking = false;
    }
  }

  private void clearReason() {
    field.getStyleClass().remove("wrong");
    getChildren().remove(reason);
  }

  private void focus(boolean focused) {
    if (focused) {
      // After the click has placed its caret, so that typing replaces the value.
      Platform.runLater(
          () -> {
            if (field.isFocused() && field.getSelection().getLength() == 0) field.selectAll();
          });
    } else {
      if (whenDone) finish();
      sealed.run();
      if (!wrong()) set(good);
    }
  }

  /** True while what stands in the field could not be understood. */
  public boolean wrong() {
    return field.getStyleClass().contains("wrong");
  }

  /** Shows a text; a field in which someone is typing keeps the keystrokes. */
  public void show(String text, String unitSymbol) {
    unit.setText(unitSymbol);
    unitPlace.setManaged(!unitSymbol.isEmpty());
    // What comes back while a keystroke is taken is that keystroke's own effect.
    if (taking) return;
    if (field.isFocused() && good.equals(field.getText()) && good.strip().equals(text)) return;
    if (field.isFocused() && wrong() && good.strip().equals(text)) return;
    // Words that are not yet taken are someone's keystrokes as long as the value is the same.
    boolean half = whenDone && !field.getText().equals(good);
    if (field.isFocused() && half && good.strip().equals(text)) return;
    good = text;
    clearReason();
    if (!field.getText().equals(text)) set(text);
  }

  /** Shows a value as it was typed, with its meaning where the keystrokes say more. */
  public void show(Value value, Unit of) {
    show(value == null ? "" : value.shown(of), of.symbol());
    // A tolerance with its drift is longer than the field.
    boolean drifts =
        value != null && value.spread() != null && value.spread().temperatureCoefficient() > 0;
    boolean more = value != null && (value.needsMeaning(of) || drifts);
    meaning.setText(
        !more
            ? ""
            : drifts
                ? value.typed() + " " + of.symbol() + " " + value.spread().text(of)
                : "= " + Numbers.trimmed(value.number(), 8) + " " + of.symbol());
    if (more && !getChildren().contains(meaning)) getChildren().add(1, meaning);
    meaning.setPadding(new Insets(0, 0, 0, drifts ? 60 : 142));
    if (!more) getChildren().remove(meaning);
  }

  private void set(String text) {
    showing = true;
    int caret = field.getCaretPosition();
    field.setText(text);
    if (field.isFocused()) field.positionCaret(Math.min(caret, text.length()));
    showing = false;
  }
}
