package nocking.report;

import java.awt.Font;
import java.awt.FontFormatException;
import java.awt.GraphicsEnvironment;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;

/**
 * The fonts that ship: Barlow for text, JetBrains Mono for numbers, STIX Two Text for equations
 * (all SIL Open Font License 1.1). The licences lie beside the files.
 */
public final class Typefaces {
  /** Resource names of all faces, relative to this class. */
  public static final List<String> FILES =
      List.of(
          "fonts/Barlow_400Regular.ttf",
          "fonts/Barlow_500Medium.ttf",
          "fonts/Barlow_600SemiBold.ttf",
          "fonts/Barlow_700Bold.ttf",
          "fonts/JetBrainsMono_400Regular.ttf",
          "fonts/JetBrainsMono_500Medium.ttf",
          "fonts/JetBrainsMono_700Bold.ttf",
          "fonts/STIXTwoText_400Regular.ttf",
          "fonts/STIXTwoText_400Regular_Italic.ttf");

  private static final Font TEXT = load("fonts/Barlow_400Regular.ttf");
  private static final Font MONO = load("fonts/JetBrainsMono_400Regular.ttf");
  private static final Font MATHS = load("fonts/STIXTwoText_400Regular.ttf");
  private static final Font MATHS_ITALIC = load("fonts/STIXTwoText_400Regular_Italic.ttf");

  private Typefaces() {}

  public static InputStream open(String file) {
    return Typefaces.class.getResourceAsStream(file);
  }

  private static Font load(String file) {
    try (InputStream in = open(file)) {
      Font font = Font.createFont(Font.TRUETYPE_FONT, in);
      GraphicsEnvironment.getLocalGraphicsEnvironment().registerFont(font);
      return font;
    } catch (IOException e) {
      throw new UncheckedIOException("the font " + file + " is missing from the application", e);
    } catch (FontFormatException e) {
      throw new IllegalStateException("the font " + file + " is damaged", e);
    }
  }

  public static Font text(double size) {
    return TEXT.deriveFont((float) size);
  }

  public static Font mono(double size) {
    return MONO.deriveFont((float) size);
  }

  public static Font maths(double size) {
    return MATHS.deriveFont((float) size);
  }

  public static Font mathsItalic(double size) {
    return MATHS_ITALIC.deriveFont((float) size);
  }
}
