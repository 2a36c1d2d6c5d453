package nocking.app.theme;

import atlantafx.base.theme.PrimerLight;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import javafx.application.Application;
import javafx.css.PseudoClass;
import javafx.scene.Scene;
import javafx.scene.text.Font;
import nocking.report.Typefaces;

/** Puts fonts and stylesheets in force. */
public final class Theme {
  private static final PseudoClass DARK = PseudoClass.getPseudoClass("dark");

  private Theme() {}

  /** Loads the fonts that ship and the base stylesheet; once, before the first scene. */
  public static void install() {
    for (String file : Typefaces.FILES) {
      try (InputStream in = Typefaces.open(file)) {
        if (Font.loadFont(in, 13) == null) {
          throw new IllegalStateException("the font " + file + " is missing from the application");
        }
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
    Application.setUserAgentStylesheet(new PrimerLight().getUserAgentStylesheetBSS());
  }

  public static void apply(Scene scene) {
    scene.getStylesheets().add(Theme.class.getResource("nocking.css").toExternalForm());
  }

  public static void dark(Scene scene, boolean dark) {
    scene.getRoot().pseudoClassStateChanged(DARK, dark);
  }
}
