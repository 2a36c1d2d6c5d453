package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.stream.Stream;
import nocking.analysis.Analysis;
import nocking.analysis.SensorFacts;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.channel.UnitChange;
import nocking.quantity.Unit;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** A quantity may be called anything else, whatever was measured before. */
class EachKindTest {
  static Stream<Channel> channels() {
    return Hatchery.book(Hatchery.SEED).channels().stream();
  }

  /**
   * Each kind from each kind, in the unit that stands there and in the usual one of the first: what
   * is known of the sensor is worked out without trouble, and gauge or absolute is asked of
   * pressures alone.
   */
  @ParameterizedTest
  @MethodSource("channels")
  void eachKindFromEachKind(Channel c) {
    for (QuantityKind from : QuantityKind.values()) {
      Channel first = c.define(d -> d.measuring(from));
      Channel usual =
          from.usualUnit().isEmpty() ? first : UnitChange.apply(first, Unit.of(from.usualUnit()));
      for (QuantityKind to : QuantityKind.values()) {
        facts(first.define(d -> d.measuring(to)));
        facts(usual.define(d -> d.measuring(to)));
      }
    }
  }

  /** And so are the findings of all the work; the tables do not ask what the quantity is called. */
  @ParameterizedTest
  @MethodSource("channels")
  void theFindingsOfEachKind(Channel c) {
    Channel without = c.receiver(r -> r.withTable(null));
    for (QuantityKind kind : QuantityKind.values()) {
      Analysis a = facts(without.define(d -> d.measuring(kind)));
      a.findings();
      assertThat(a.troubles()).as("%s as %s", c.tag(), kind).isEmpty();
    }
  }

  private static Analysis facts(Channel c) {
    Analysis a = Analysis.of(c);
    String what = "%s as %s in %s".formatted(c.tag(), c.definition().kind(), c.unit().symbol());
    if (c.design().sensor() != null) assertThat(SensorFacts.of(a).facts()).as(what).isNotNull();
    assertThat(a.troubles()).as(what).isEmpty();
    boolean pressure = c.unit().dimension().equals(Unit.of("kPa").dimension());
    boolean asked = c.definition().kind() == QuantityKind.PRESSURE && pressure;
    assertThat(c.definition().gauge() != null).as(what).isEqualTo(asked);
    return a;
  }
}
