package nocking.parts;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import nocking.quantity.ResistorCode;

/** Resistors in series and parallel that act as one. */
public sealed interface Network {

  /** One part. */
  record Single(StockPart part) implements Network {}

  /** Parts or networks one after another. */
  record Series(List<Network> members) implements Network {}

  /** Parts or networks side by side. */
  record Parallel(List<Network> members) implements Network {}

  static Network of(StockPart part) {
    return new Single(part);
  }

  /** In series; nested series are joined and the larger stands first. */
  static Network series(Network a, Network b) {
    var list = new ArrayList<Network>();
    for (Network n : List.of(a, b)) {
      if (n instanceof Series s) list.addAll(s.members);
      else list.add(n);
    }
    return new Series(sorted(list));
  }

  /** In parallel; nested parallels are joined and the larger stands first. */
  static Network parallel(Network a, Network b) {
    var list = new ArrayList<Network>();
    for (Network n : List.of(a, b)) {
      if (n instanceof Parallel p) list.addAll(p.members);
      else list.add(n);
    }
    return new Parallel(sorted(list));
  }

  private static List<Network> sorted(List<Network> list) {
    list.sort(Comparator.comparingDouble(Network::ohms).reversed().thenComparing(Network::text));
    return List.copyOf(list);
  }

  /** Ohms of the whole. */
  default double ohms() {
    return switch (this) {
      case Single s -> s.part.ohms();
      case Series s -> s.members.stream().mapToDouble(Network::ohms).sum();
      case Parallel p -> 1 / p.members.stream().mapToDouble(m -> 1 / m.ohms()).sum();
    };
  }

  /** Every part, in reading order. */
  default List<StockPart> parts() {
    return switch (this) {
      case Single s -> List.of(s.part);
      case Series s -> s.members.stream().flatMap(m -> m.parts().stream()).toList();
      case Parallel p -> p.members.stream().flatMap(m -> m.parts().stream()).toList();
    };
  }

  /**
   * Smallest or largest ohms that the tolerances allow. A network rises with each of its parts, so
   * that its limits are those with all parts at theirs.
   *
   * @param sign −1 or 1
   */
  default double limit(int sign) {
    return switch (this) {
      case Single s -> s.part.ohms() * (1 + sign * s.part.tolerance() / 100);
      case Series s -> s.members.stream().mapToDouble(m -> m.limit(sign)).sum();
      case Parallel p -> 1 / p.members.stream().mapToDouble(m -> 1 / m.limit(sign)).sum();
    };
  }

  /** Largest share of the whole network's power that one part takes, 0 to 1. */
  default double hottestShare() {
    return switch (this) {
      case Single _ -> 1;
      case Series s ->
          s.members.stream().mapToDouble(m -> m.hottestShare() * m.ohms() / ohms()).max().orElse(1);
      case Parallel p ->
          p.members.stream().mapToDouble(m -> m.hottestShare() * ohms() / m.ohms()).max().orElse(1);
    };
  }

  /** Largest share of the whole network's voltage that stands across one part, 0 to 1. */
  default double highestShare() {
    return switch (this) {
      case Single _ -> 1;
      case Series s ->
          s.members.stream().mapToDouble(m -> m.highestShare() * m.ohms() / ohms()).max().orElse(1);
      case Parallel p -> p.members.stream().mapToDouble(Network::highestShare).max().orElse(1);
    };
  }

  /** As it is typed: {@code 10k + (4k7 || 330)}. */
  default String text() {
    return switch (this) {
      case Single s -> ResistorCode.of(s.part.ohms());
      case Series s -> s.members.stream().map(Network::text).collect(Collectors.joining(" + "));
      case Parallel p ->
          p.members.stream()
              .map(m -> m instanceof Series ? "(" + m.text() + ")" : m.text())
              .collect(Collectors.joining(" || "));
    };
  }
}
