package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import nocking.app.desk.Aside;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.WorkStep;
import nocking.demo.Hatchery;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/**
 * Whatever channel is accepted can be looked at from every side: the window stays whole with
 * documents whose numbers are far from any job. {@code -Dnocking.odd=100} looks at more than every
 * build does.
 */
@Tag("campaign")
@Timeout(value = 600, unit = TimeUnit.SECONDS, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
class OddChannelsTest extends WindowTest {
  private static final int CHANNELS = Integer.getInteger("nocking.odd", 10);
  private static final Pattern NUMBER = Pattern.compile("(?<=: )-?[0-9]+(\\.[0-9]+)?(E-?[0-9]+)?");

  @Test
  void acceptedChannelsAreShownOnEveryStage() {
    var random = new Random(20261126);
    List<Channel> sound = Hatchery.book(Hatchery.SEED).channels();
    var odd = new ArrayList<Channel>();
    while (odd.size() < CHANNELS) {
      Channel c = sound.get(random.nextInt(sound.size()));
      int number = odd.size();
      accepted(nudged(ChannelJson.write(c), random))
          .map(a -> a.withId("odd-" + number).journal(j -> j.withLocked(false)))
          .map(a -> a.define(d -> d.withTag("ODD-" + number)))
          .ifPresent(odd::add);
    }
    open(new Book(odd));
    for (Channel c : odd) {
      hands.run(() -> desk.select(c.id()));
      for (WorkStep step : WorkStep.values()) {
        hands.run(() -> desk.step(step));
        hands.run(() -> desk.probe(c.definition().working().high()));
      }
      hands.run(() -> desk.aside(Aside.DIAGNOSE));
      settled();
    }
    assertThat(desk.book().channels()).hasSize(CHANNELS);
  }

  private static Optional<Channel> accepted(String json) {
    try {
      return Optional.of(ChannelJson.readAny(json, "odd").channels().getFirst());
    } catch (IllegalArgumentException e) {
      return Optional.empty();
    }
  }

  /** One to three of its numbers are others: far larger, far smaller, zero, of the other sign. */
  private static String nudged(String json, Random random) {
    String s = json;
    for (int n = 1 + random.nextInt(3); n > 0; n--) {
      Matcher m = NUMBER.matcher(s);
      int all = (int) m.results().count();
      int wanted = random.nextInt(all);
      m.reset();
      for (int i = 0; i <= wanted; i++) m.find();
      double v = Double.parseDouble(m.group());
      double other =
          switch (random.nextInt(5)) {
            case 0 -> 0;
            case 1 -> -v;
            case 2 -> v * Math.pow(10, random.nextInt(13) - 6);
            case 3 -> v + random.nextInt(9) - 4;
            default -> 1e300;
          };
      s = s.substring(0, m.start()) + other + s.substring(m.end());
    }
    return s;
  }
}
