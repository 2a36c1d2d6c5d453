package nocking.report.plot;

import java.awt.Color;

/** Colours of a plot, for paper and for the dark variant. */
public enum Palette {
  LIGHT,
  DARK;

  Color background() {
    return this == LIGHT ? Color.WHITE : new Color(0x1B2629);
  }

  Color grid() {
    return this == LIGHT ? new Color(0xEAE6DB) : new Color(0x2E3C40);
  }

  Color frame() {
    return this == LIGHT ? new Color(0xC9C3B2) : new Color(0x4A5A5E);
  }

  Color ink() {
    return this == LIGHT ? new Color(0x5C6668) : new Color(0xA9B5B6);
  }

  Color of(Role role) {
    boolean light = this == LIGHT;
    return switch (role) {
      case CURVE, POINT -> light ? new Color(0xB9652B) : new Color(0xE09A5E);
      case OTHER -> light ? new Color(0x17454D) : new Color(0x7FC0CA);
      case QUIET, LEFT_OUT -> light ? new Color(0x8A9193) : new Color(0x77868A);
      case PASS -> light ? new Color(0x2C7A55) : new Color(0x63B98D);
      case FAIL -> light ? new Color(0xA3262A) : new Color(0xE57373);
      case TOLERANCE -> new Color(44, 122, 85, light ? 26 : 60);
      case RAIL -> new Color(163, 38, 42, light ? 26 : 70);
      case SHADE -> new Color(23, 69, 77, light ? 16 : 70);
    };
  }
}
