package nocking.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What a plan says otherwise than the one that a run was begun with.
 *
 * @param counting what makes other numbers of what was read, by a known rule ({@link Recount})
 * @param meaning what would make other numbers of what is read: to mix both in one run is wrong
 * @param manner how it is gone on with: when it has settled, how often it is read, who and when
 */
public record PlanChanges(List<String> counting, List<String> meaning, List<String> manner) {
  public PlanChanges {
    counting = List.copyOf(counting);
    meaning = List.copyOf(meaning);
    manner = List.copyOf(manner);
  }

  /** True where anything differs. */
  public boolean any() {
    return !counting.isEmpty() || !meaning.isEmpty() || !manner.isEmpty();
  }

  /** All of it in one line. */
  public String says() {
    return Stream.of(counting, meaning, manner)
        .flatMap(List::stream)
        .collect(Collectors.joining("; "));
  }

  /** Differences of two plans of the same work ({@link RunPlan#likeWork}); addresses are none. */
  public static PlanChanges of(RunPlan begun, RunPlan now) {
    var counting = new ArrayList<String>();
    var meaning = new ArrayList<String>();
    var manner = new ArrayList<String>();
    instrument("the reference", begun.reference(), now.reference(), counting, meaning);
    for (int i = 0; i < begun.channels().size(); i++) {
      RunChannel was = begun.channels().get(i);
      RunChannel is = now.channels().get(i);
      instrument("the meter of " + was.tag(), was.meter(), is.meter(), counting, meaning);
      changed(was.tag() + " is kept in", was.raw().title(), is.raw().title(), meaning);
      changed(was.tag() + " settles by", settles(was), settles(is), manner);
      changed("the place of " + was.tag(), was.place(), is.place(), manner);
    }
    instrument("the supply's meter", begun.supply(), now.supply(), counting, meaning);
    instrument("the second reference", begun.beside(), now.beside(), counting, meaning);
    changed("seconds between readings", begun.every(), now.every(), manner);
    changed("seconds until it is given up", begun.giveUp(), now.giveUp(), manner);
    changed("the band about a set point", begun.band(), now.band(), manner);
    changed("what is done then", begun.then().title(), now.then().title(), manner);
    changed("what it is for", begun.purpose().title(), now.purpose().title(), manner);
    if (!begun.conditions().equals(now.conditions())) manner.add("the conditions differ");
    return new PlanChanges(counting, meaning, manner);
  }

  private static String settles(RunChannel c) {
    return switch (c.settle()) {
      case SettleRule.Rest r -> "rest within %s, lag %s s".formatted(r.within(), r.lag());
      case SettleRule.Stable s ->
          "scatter %s, slope %s over %s s".formatted(s.deviation(), s.slope(), s.window());
      case SettleRule.Dwell d -> "a dwell of %s s".formatted(d.seconds());
      case SettleRule.ByHand _ -> "a word of the operator";
    };
  }

  private static void instrument(
      String what, Instrument was, Instrument is, List<String> counting, List<String> differences) {
    if (was == null || is == null) {
      if (was != is) differences.add(what + (is == null ? " is gone" : " is new"));
      return;
    }
    changed(what + " answers in", was.unit(), is.unit(), counting);
    changed(what + " is spoken to by", was.language().title(), is.language().title(), differences);
    changed(what + " is asked", was.ask(), is.ask(), differences);
    changed(what + " is set by", was.set(), is.set(), differences);
    changed(what + " is read by the pattern", was.pattern(), is.pattern(), differences);
    changed(what + " stands at", was.place(), is.place(), differences);
    changed(what + " is corrected by", certificate(was), certificate(is), counting);
  }

  private static String certificate(Instrument i) {
    return i.corrections() == null ? "nothing" : i.corrections().typed();
  }

  private static void changed(String what, Object was, Object is, List<String> differences) {
    if (Objects.equals(was, is)) return;
    differences.add("%s '%s', it was begun with '%s'".formatted(what, is, was));
  }
}
