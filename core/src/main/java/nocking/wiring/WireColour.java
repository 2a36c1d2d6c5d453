package nocking.wiring;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** Colours of insulation by their usual names, as sRGB, so that a wire is drawn as it looks. */
public final class WireColour {
  private static final Map<String, String> NAMES =
      Map.ofEntries(
          Map.entry("brown", "#9C5A2A"),
          Map.entry("blue", "#2A5CA8"),
          Map.entry("black", "#23282A"),
          Map.entry("white", "#FFFFFF"),
          Map.entry("red", "#B3282D"),
          Map.entry("green", "#2F7D4A"),
          Map.entry("yellow", "#E6C333"),
          Map.entry("grey", "#8A8F90"),
          Map.entry("gray", "#8A8F90"),
          Map.entry("orange", "#D97B29"),
          Map.entry("violet", "#7A4FA3"),
          Map.entry("purple", "#7A4FA3"),
          Map.entry("pink", "#DE8FA8"),
          Map.entry("turquoise", "#3FA7A0"));

  private WireColour() {}

  /**
   * The colours named in a free text, the ground colour first: {@code green/yellow} has two.
   *
   * @return empty when no colour is recognised
   */
  public static List<String> of(String text) {
    var list = new ArrayList<String>();
    for (String word : text.toLowerCase(Locale.ROOT).split("[^a-z]+")) {
      String colour = NAMES.get(word);
      if (colour != null && list.size() < 2) list.add(colour);
    }
    return List.copyOf(list);
  }
}
