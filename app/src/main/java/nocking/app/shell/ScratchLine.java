package nocking.app.shell;

import java.util.ArrayList;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import nocking.analysis.Analysis;
import nocking.analysis.Scratch;
import nocking.app.desk.Desk;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.Note;
import nocking.quantity.QuantityException;

/** The calculator at the bottom: units, prefixes, {@code ||}, and the channel's symbols. */
final class ScratchLine extends HBox {
  private static final int NOTES_KEPT = 200;

  private final Desk desk;
  private final TextField line = new TextField();
  private final Label answer = new Label();

  ScratchLine(Desk desk) {
    this.desk = desk;
    getStyleClass().add("scratch");
    setAlignment(Pos.CENTER_LEFT);
    setSpacing(8);
    line.setId("scratch");
    line.setPromptText("25 psi in kPa   4k7 || 10k");
    line.setPrefColumnCount(32);
    line.setAccessibleText("Scratch line");
    line.setAccessibleHelp(
        "Type an expression with units, prefixes, || for parallel and the channel's own symbols."
            + " Enter keeps it in the channel's notes.");
    answer.setId("scratch-answer");
    answer.getStyleClass().add("answer");
    line.textProperty().addListener(o -> evaluate());
    line.setOnKeyPressed(
        e -> {
          if (e.getCode() == KeyCode.ENTER) keep();
          if (e.getCode() == KeyCode.ESCAPE) line.clear();
        });
    var gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    var hint = new Label("Ctrl+K find · F1 help");
    hint.setMinWidth(Region.USE_PREF_SIZE);
    var word = new Label("Scratch");
    word.setMinWidth(Region.USE_PREF_SIZE);
    getChildren().addAll(word, line, answer, gap, hint);
  }

  /** Works the line out anew; the probe or the channel may have changed. */
  void evaluate() {
    answer.getStyleClass().remove("wrong");
    String text = line.getText().strip();
    if (text.isEmpty()) {
      answer.setText("");
      return;
    }
    try {
      answer.setText("→ " + Scratch.answer(text, analysis(), desk.probe()));
    } catch (QuantityException e) {
      answer.getStyleClass().add("wrong");
      answer.setText(e.getMessage());
    }
  }

  private Analysis analysis() {
    return desk.channel()
        .map(desk::analysis)
        .orElseGet(() -> Analysis.of(Channel.blank(Book.newId(), "-")));
  }

  private void keep() {
    if (answer.getText().isEmpty() || answer.getStyleClass().contains("wrong")) return;
    var note = new Note(line.getText().strip(), answer.getText().substring(2));
    boolean kept =
        desk.edit(
            "keep a note",
            "",
            c -> {
              var notes = new ArrayList<>(c.journal().notes());
              notes.add(note);
              return c.journal(
                  j ->
                      j.withNotes(
                          notes.subList(Math.max(0, notes.size() - NOTES_KEPT), notes.size())));
            });
    if (kept) {
      desk.say(
          "Kept in the notes of %s, in Record.".formatted(desk.channel().orElseThrow().tag()),
          false);
      line.selectAll();
    }
  }

  TextField field() {
    return line;
  }
}
