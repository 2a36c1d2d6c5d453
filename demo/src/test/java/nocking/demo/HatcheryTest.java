package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import nocking.analysis.Analysis;
import nocking.analysis.ChannelState;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.Receiver;
import nocking.diagnosis.Diagnosis;
import nocking.diagnosis.Diagnostician;
import nocking.diagnosis.Ranking;
import nocking.finding.Finding;
import nocking.finding.Severity;
import nocking.prior.PriorWeights;
import nocking.table.Comparison;
import nocking.table.TypingList;
import nocking.view.TableResult;
import org.junit.jupiter.api.Test;

/** The demo book can always be made again, and every channel shows what it is there for. */
class HatcheryTest {
  private static final Book BOOK = Hatchery.book(Hatchery.SEED);

  private static Analysis of(String tag) {
    return Analysis.of(BOOK.byTag(tag).orElseThrow());
  }

  private static List<String> rules(String tag) {
    return of(tag).findings().stream()
        .filter(f -> f.severity() != Severity.CAUTION)
        .map(Finding::rule)
        .toList();
  }

  @Test
  void sameSeedGivesTheSameBook() {
    assertThat(Hatchery.book(Hatchery.SEED)).isEqualTo(BOOK);
    assertThat(Hatchery.book(1)).isNotEqualTo(BOOK);
  }

  @Test
  void everyChannelIsSound() {
    for (Channel c : BOOK.channels()) {
      c.require();
      assertThat(ChannelJson.readChannel(ChannelJson.write(c), c.tag())).isEqualTo(c);
    }
    assertThat(BOOK.channels()).extracting(Channel::tag).doesNotHaveDuplicates();
  }

  @Test
  void incubatorIsFinishedAndItsDesignReadsHigh() {
    assertThat(ChannelState.of(of("IN-T2"))).isEqualTo(ChannelState.PASS);
    assertThat(rules("IN-T2")).containsExactly("sensor-large", "tolerance", "constant-offset");
    assertThat(BOOK.byTag("IN-T2").orElseThrow().journal().locked()).isTrue();
  }

  @Test
  void blowerHasOneSlippedPoint() {
    assertThat(ChannelState.of(of("BL-P1"))).isEqualTo(ChannelState.WARNING);
    assertThat(rules("BL-P1")).contains("point-slip", "fixed-reference");
  }

  @Test
  void oxygenShowsWhatTwoPointsLeave() {
    assertThat(rules("OX-D1")).containsExactly("gain-error", "mid-span");
  }

  @Test
  void othersAreUnderWay() {
    assertThat(ChannelState.of(of("GV-P1"))).isEqualTo(ChannelState.UNDER_WAY);
    assertThat(ChannelState.of(of("PD-Q1"))).isEqualTo(ChannelState.WARNING);
    assertThat(ChannelState.of(of("HD-L1"))).isEqualTo(ChannelState.PASS);
  }

  /** What stands beside a channel is what the channel is there to show. */
  @Test
  void nothingIsFoundThatIsNotMeant() {
    assertThat(rules("RW-T1")).isEmpty();
    assertThat(rules("HD-L1")).containsExactly("fault-harm");
    assertThat(rules("SG-P1")).containsExactly("loading", "fault-limits", "backwards");
    assertThat(rules("FD-S1")).containsExactly("converter-use", "band-travel");
    assertThat(rules("FH-W1")).containsExactly("constant-offset", "floating-signal");
    assertThat(rules("AE-V1")).containsExactly("fault-harm", "converter-use");
    assertThat(rules("PD-Q1")).containsExactly("receiver-believes");
    assertThat(rules("GV-P1")).containsExactly("loading", "fault-harm", "faults-untold");
  }

  /** Nine hundred readings, 1.5 steps: the smallest table, and what the bench says of itself. */
  @Test
  void theScreensTableIsTheSmallest() {
    TableResult t = of("SC-A1").receiver().table().result().orElseThrow();
    assertThat(t.pairs().orElseThrow().size()).isEqualTo(900);
    assertThat(t.made().proven()).isTrue();
    assertThat(t.error().worst()).isLessThanOrEqualTo(1.5);
    assertThat(t.withOneLess().orElseThrow().worst()).isGreaterThan(1.5);
    assertThat(rules("SC-A1")).contains("table-goes-on", "strokes-differ");
    assertThat(t.beside())
        .extracting(Comparison::placement)
        .containsExactly("optimal", "equal", "pow2", "every:82", "ends");
    assertThat(t.beside().subList(1, 5)).allMatch(k -> k.error().worst() > 1.5);
  }

  /** Thirty-two rows of a datasheet in sixteen cells; nine of them are in the controller. */
  @Test
  void theRacewaysListIsHalfTyped() {
    TableResult t = of("RW-T1").receiver().table().result().orElseThrow();
    Receiver r = BOOK.byTag("RW-T1").orElseThrow().receiver();
    assertThat(r.bench().size()).isEqualTo(32);
    assertThat(t.count()).isEqualTo(16);
    assertThat(TypingList.typed(TypingList.of(t.ordered(), r.typing()))).isEqualTo(9);
    assertThat(t.error().worst()).isLessThan(0.1);
    assertThat(t.beside().get(1).error().worst()).as("equal steps").isGreaterThan(2);
  }

  /** Water in the sluice gate's connector: what was seen of it is there, the explanation is not. */
  @Test
  void sluiceHidesAFaultThatItsReadingsExplain() {
    Channel c = BOOK.byTag("SG-P1").orElseThrow();
    var engine =
        Diagnostician.of(
            Analysis.of(c, BOOK.cards()).wiring().subject().orElseThrow(), PriorWeights.USUAL);
    Ranking r = engine.rank(c.wiring().seen().stream().map(Diagnosis::observed).toList());
    assertThat(r.noneFits()).isFalse();
    assertThat(r.best().fault().name()).isEqualTo("leak from signal to ground");
    assertThat(r.best().probability()).isLessThan(0.9);
    assertThat(engine.next(r)).isPresent();
  }

  @Test
  void cautionsStandWhereSomeoneCanBeHurt() {
    assertThat(of("AE-V1").findings())
        .filteredOn(f -> f.severity() == Severity.CAUTION)
        .extracting(Finding::rule)
        .containsExactlyInAnyOrder("caution", "stored-charge");
    assertThat(of("PD-Q1").findings()).filteredOn(f -> f.severity() == Severity.CAUTION).hasSize(2);
  }
}
