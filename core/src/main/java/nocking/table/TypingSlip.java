package nocking.table;

import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import nocking.quantity.Numbers;

/**
 * The one slip that explains how a list that was typed in came to differ from what was meant.
 *
 * @param kind what happened
 * @param cell it happened at, counted from 0
 * @param other the cell that it was exchanged with; the same where there is none
 * @param detail what is known of a number that is wrong; empty for nothing
 */
public record TypingSlip(Kind kind, int cell, int other, String detail) {
  /** Cells behind a gap that have to fit, so that it is a gap and no chance. */
  private static final int FIT = 2;

  private static final double HAIR = 1e-9;

  /** What can happen to a list. */
  public enum Kind {
    EXCHANGED,
    OUTPUTS_EXCHANGED,
    RAWS_EXCHANGED,
    FORGOTTEN,
    TWICE,
    WRONG
  }

  /**
   * @param meant in the order in which it was typed
   * @param held what the receiver shows, in the same order
   * @return empty where nothing differs, and where no single slip explains it
   */
  public static Optional<TypingSlip> of(List<Cell> meant, List<Cell> held) {
    int n = meant.size();
    if (held.size() != n) return Optional.empty();
    int[] differ =
        IntStream.range(0, n)
            .filter(i -> !raw(meant, i, held, i) || !out(meant, i, held, i))
            .toArray();
    if (differ.length == 0) return Optional.empty();
    if (differ.length == 1) {
      return Optional.of(wrong(differ[0], meant.get(differ[0]), held.get(differ[0])));
    }
    if (differ.length == 2) {
      Optional<TypingSlip> pair = exchanged(meant, held, differ[0], differ[1]);
      if (pair.isPresent()) return pair;
    }
    return shifted(meant, held, differ[0]);
  }

  private static boolean raw(List<Cell> a, int i, List<Cell> b, int k) {
    return near(a.get(i).raw(), b.get(k).raw());
  }

  private static boolean out(List<Cell> a, int i, List<Cell> b, int k) {
    return near(a.get(i).out(), b.get(k).out());
  }

  private static boolean whole(List<Cell> a, int i, List<Cell> b, int k) {
    return raw(a, i, b, k) && out(a, i, b, k);
  }

  private static boolean near(double a, double b) {
    return Math.abs(a - b) <= HAIR * Math.max(1, Math.abs(b));
  }

  private static Optional<TypingSlip> exchanged(List<Cell> meant, List<Cell> held, int i, int k) {
    boolean raws = raw(meant, i, held, k) && raw(meant, k, held, i);
    boolean outs = out(meant, i, held, k) && out(meant, k, held, i);
    boolean rawsStand = raw(meant, i, held, i) && raw(meant, k, held, k);
    boolean outsStand = out(meant, i, held, i) && out(meant, k, held, k);
    Kind kind =
        outs && rawsStand
            ? Kind.OUTPUTS_EXCHANGED
            : raws && outsStand ? Kind.RAWS_EXCHANGED : raws && outs ? Kind.EXCHANGED : null;
    return kind == null ? Optional.empty() : Optional.of(new TypingSlip(kind, i, k, ""));
  }

  /** From a cell on everything stands a place too early, or too late. */
  private static Optional<TypingSlip> shifted(List<Cell> meant, List<Cell> held, int from) {
    int n = meant.size();
    boolean early =
        n - 1 - from >= FIT
            && IntStream.range(from, n - 1).allMatch(k -> whole(meant, k + 1, held, k));
    if (early) return Optional.of(new TypingSlip(Kind.FORGOTTEN, from, from, ""));
    boolean late =
        from > 0
            && n - from >= FIT
            && IntStream.range(from, n).allMatch(k -> whole(meant, k - 1, held, k));
    return late
        ? Optional.of(new TypingSlip(Kind.TWICE, from - 1, from - 1, ""))
        : Optional.empty();
  }

  private static TypingSlip wrong(int cell, Cell meant, Cell held) {
    boolean out = !near(meant.out(), held.out());
    boolean raw = !near(meant.raw(), held.raw());
    String both =
        raw && out ? "" : how(out ? meant.out() : meant.raw(), out ? held.out() : held.raw());
    return new TypingSlip(Kind.WRONG, cell, cell, both);
  }

  private static String how(double meant, double held) {
    if (near(held, -meant)) return "its sign is lost";
    for (int p = -6; p <= 6; p++) {
      if (p != 0 && near(held, meant * Math.pow(10, p))) return "its decimal point slipped";
    }
    return neighbours(Numbers.plain(meant), Numbers.plain(held))
        ? "two of its digits are exchanged"
        : "";
  }

  private static boolean neighbours(String a, String b) {
    if (a.length() != b.length()) return false;
    int i = 0;
    while (i < a.length() && a.charAt(i) == b.charAt(i)) i++;
    return i + 1 < a.length()
        && a.charAt(i) == b.charAt(i + 1)
        && a.charAt(i + 1) == b.charAt(i)
        && a.substring(i + 2).equals(b.substring(i + 2));
  }

  /** In a sentence without its end, cells counted from 1. */
  public String says() {
    int n = cell + 1;
    return switch (kind) {
      case EXCHANGED -> "cells %d and %d are exchanged".formatted(n, other + 1);
      case OUTPUTS_EXCHANGED ->
          "the outputs of cells %d and %d are exchanged".formatted(n, other + 1);
      case RAWS_EXCHANGED ->
          "the raw values of cells %d and %d are exchanged".formatted(n, other + 1);
      case FORGOTTEN ->
          "cell %d was forgotten, and what is behind it stands a place too early".formatted(n);
      case TWICE ->
          "cell %d was typed twice, and what is behind it stands a place too late".formatted(n);
      case WRONG ->
          detail.isEmpty()
              ? "cell %d is wrong".formatted(n)
              : "cell %d is wrong: %s".formatted(n, detail);
    };
  }
}
