package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import nocking.analysis.Analysis;
import nocking.band.AlarmBand;
import nocking.band.BandPlan;
import nocking.channel.Adopted;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.DocumentException;
import nocking.check.CheckPoint;
import nocking.check.CheckTable;
import nocking.quantity.Value;
import nocking.table.BenchPairs;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Every demo channel with one field missing, null, unknown, of another kind or absurdly large, each
 * in turn: it is read and worked out, or one sentence in plain words says what is wrong with it.
 */
@Tag("campaign")
class OddDocumentsTest {
  private static final JsonMapper MAPPER = JsonMapper.builder().build();
  private static final Pattern LEAK =
      Pattern.compile(
          "Exception|[Jj]ackson|[Dd]eserializ|Cannot|`|FAIL_ON|VALUE_|START_|because \"|Creator");

  private enum Oddity {
    MISSING,
    NULL,
    UNKNOWN,
    WORD,
    LIST,
    LARGE
  }

  static List<Channel> channels() {
    return Hatchery.book(Hatchery.SEED).channels();
  }

  @ParameterizedTest
  @MethodSource("channels")
  void oneOddFieldIsTakenOrNamed(Channel channel) {
    String sound = ChannelJson.write(few(channel));
    List<List<Object>> paths = OddFields.of(MAPPER.readTree(sound));
    var faults = new ArrayList<String>();
    for (List<Object> path : paths) {
      for (Oddity oddity : Oddity.values()) {
        String text = with(sound, path, oddity);
        if (text == null) continue;
        String what = path + " " + oddity + ": ";
        try {
          Analysis a = Analysis.of(ChannelJson.readChannel(text, "c.json"));
          a.findings();
          a.at(a.channel().definition().working().middle());
          // A number without bounds is worked out, or it is said of that part alone.
          if (oddity != Oddity.LARGE) a.troubles().forEach(t -> faults.add(what + t));
        } catch (DocumentException e) {
          if (LEAK.matcher(e.getMessage()).find()) faults.add(what + e.getMessage());
          if (e.getMessage().contains("\n")) faults.add(what + "more than one line");
        }
      }
    }
    assertThat(faults).isEmpty();
  }

  /** The channel with some of its bench pairs: what holds of one of them holds of all. */
  private static Channel few(Channel c) {
    BenchPairs b = c.receiver().bench();
    if (b == null) return c;
    int n = Math.min(6, b.size());
    var some = new BenchPairs(b.source(), b.axis(), b.raw().subList(0, n), b.truth().subList(0, n));
    return c.receiver(r -> r.withBench(some));
  }

  /** A model of tomorrow's version in a stored channel is said, and said truly, once. */
  @Test
  void anUnknownAdoptedModelIsWhyThereIsNoCircuit() {
    Channel c = Hatchery.book(Hatchery.SEED).byTag("IN-T2").orElseThrow();
    Analysis a =
        Analysis.of(c.calibration(k -> k.withAdopted(new Adopted("spline", List.of(), 4))));
    for (int i = 0; i < 5; i++) a.at(9);
    assertThat(a.design().path()).isPresent();
    assertThat(a.wiring().subject()).isEmpty();
    assertThat(a.whyNoCircuit()).contains("'spline' is not known to this version");
    assertThat(a.findings()).anyMatch(f -> f.headline().contains("'spline' is not known"));
    assertThat(a.troubles()).hasSize(1);
  }

  /** A sheet that is planned and not yet measured, pins and bands that nobody has settled. */
  @ParameterizedTest
  @MethodSource("channels")
  void whatIsNotEnteredYetIsNoOddity(Channel channel) {
    var planned =
        new CheckTable(
            CheckTable.Measured.VOLTS, List.of(new CheckPoint(channel.definition().low(), null)));
    var alarm = new AlarmBand("low", null, Value.of(1));
    var open = new BandPlan(List.of(), null, null, null, List.of(alarm), null, List.of());
    Channel c =
        channel
            .acceptance(a -> a.withCheck(planned))
            .wiring(w -> w.withBands(open))
            .calibration(k -> k.withAdopted(null))
            .receiver(r -> r.withTable(null))
            .wiring(w -> w.withPlan(w.plan().withThresholds(null)));
    assertThat(ChannelJson.readCompact(ChannelJson.compact(c), "c")).isEqualTo(c);
  }

  private static String with(String sound, List<Object> path, Oddity oddity) {
    JsonNode root = MAPPER.readTree(sound);
    JsonNode parent = OddFields.parent(root, path);
    JsonNode odd =
        switch (oddity) {
          case NULL -> MAPPER.nullNode();
          case WORD -> MAPPER.getNodeFactory().stringNode("tomato");
          case LIST -> MAPPER.createArrayNode().add(1);
          case LARGE -> MAPPER.getNodeFactory().numberNode(-1e300);
          case MISSING, UNKNOWN -> null;
        };
    if (parent instanceof ArrayNode list) {
      if (oddity == Oddity.UNKNOWN) return null;
      if (odd == null) list.remove(0);
      else list.set(0, odd);
    } else {
      var object = (ObjectNode) parent;
      String name = (String) path.getLast();
      if (oddity == Oddity.UNKNOWN) object.put("tomorrow", 1);
      else if (odd == null) object.remove(name);
      else object.set(name, odd);
    }
    return MAPPER.writeValueAsString(root);
  }
}
