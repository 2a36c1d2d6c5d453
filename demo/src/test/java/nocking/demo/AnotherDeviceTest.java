package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Stream;
import nocking.analysis.Analysis;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.check.CheckPoint;
import nocking.points.PointSet;
import nocking.wiring.Pin;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** A duplicate is a channel for another device. */
class AnotherDeviceTest {
  private static final Book BOOK = Hatchery.book(Hatchery.SEED);

  static Stream<Channel> channels() {
    return BOOK.channels().stream();
  }

  /** Of what was measured, typed in, transferred, checked or signed nothing goes along. */
  @ParameterizedTest
  @MethodSource("channels")
  void nothingOfTheOtherDeviceGoesAlong(Channel c) {
    Channel copy = c.forAnotherDevice("new", "X-1");
    assertThat(copy.id()).isEqualTo("new");
    assertThat(copy.tag()).isEqualTo("X-1");
    assertThat(copy.design()).isEqualTo(c.design().define(d -> d.withTag("X-1")));
    assertThat(copy.calibration().points())
        .isEqualTo(new PointSet(c.calibration().points().raw(), List.of()));
    assertThat(copy.calibration().byDesign()).isTrue();
    assertThat(copy.wiring().plan().pairs()).isEmpty();
    assertThat(copy.wiring().plan().pins())
        .hasSameSizeAs(c.wiring().plan().pins())
        .allMatch(p -> p.measured() == null && p.continuity() == null);
    assertThat(copy.wiring().plan().pins())
        .extracting(Pin::wire)
        .isEqualTo(c.wiring().plan().pins().stream().map(Pin::wire).toList());
    assertThat(copy.wiring().plan().thresholds()).isEqualTo(c.wiring().plan().thresholds());
    assertThat(copy.wiring().seen()).isEmpty();
    assertThat(copy.wiring().bands().positions()).allMatch(p -> p.observed().length == 0);
    assertThat(copy.wiring().bands().switches()).allMatch(s -> s.up() == null && s.down() == null);
    assertThat(copy.receiver().transfers()).isEmpty();
    assertThat(copy.receiver().typing()).isEmpty();
    assertThat(copy.receiver().bench()).isNull();
    assertThat(copy.acceptance().check().points())
        .hasSameSizeAs(c.acceptance().check().points())
        .extracting(CheckPoint::measured)
        .allMatch(m -> m == null);
    assertThat(copy.journal().locked()).isFalse();
    assertThat(copy.journal().notes()).singleElement().matches(n -> n.answer().equals(c.tag()));
    // It is a whole channel: it is written, read and worked out.
    assertThat(ChannelJson.readChannel(ChannelJson.write(copy), "copy")).isEqualTo(copy);
    Analysis a = Analysis.of(copy);
    a.findings();
    assertThat(a.troubles()).isEmpty();
  }
}
