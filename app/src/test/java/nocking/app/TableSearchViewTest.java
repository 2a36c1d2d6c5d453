package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.ProgressBar;
import nocking.app.desk.Background;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.points.RawUnit;
import nocking.table.Arithmetic;
import nocking.table.BenchPairs;
import nocking.table.Placement;
import nocking.table.TableGoal;
import nocking.table.TableSearch;
import nocking.table.TableSpec;
import org.junit.jupiter.api.Test;

/** A search for the smallest table that takes long is seen, and its end is a click away. */
class TableSearchViewTest extends WindowTest {

  /** Few values on many codes, two of them at one code: hard to search through. */
  private static Channel hard(String tolerance) {
    var pairs =
        new BenchPairs(
            "bench",
            RawUnit.COUNTS,
            List.of(
                0.0, 1023.0, 347.0, 326.0, 441.0, 974.0, 629.0, 933.0, 652.0, 1021.0, 61.0, 61.0),
            List.of(0.8, 60.3, 17.9, 21.6, 20.3, 63.6, 30.4, 66.2, 32.1, 63.2, 7.9, 7.95));
    TableGoal goal =
        TableGoal.USUAL
            .withPlacement(Placement.OPTIMAL)
            .withFewest(true)
            .withBench(true)
            .withTolerance(tolerance);
    TableSpec spec =
        new TableSpec(16, RawUnit.COUNTS, false, 0, 0)
            .with(goal)
            .with(Arithmetic.LINES.withWhole(false));
    return Channel.blank("c", "CH-1").receiver(r -> r.withTable(spec).withBench(pairs));
  }

  @Test
  void whatIsFoundIsTakenByAClick() {
    open(new Book(List.of(hard("5"))));
    hands.run(() -> desk.step(WorkStep.TABLE));
    // Without waiting until all is quiet: the search is what is looked at.
    Hands.ask(() -> desk.edit("tolerance", "", c -> hard("0.7122")));
    while (!hands.has("table-search-end")) assertThat(Background.idle()).isFalse();
    ProgressBar share = hands.node("table-search-share");
    while (Hands.ask(share::getProgress) < 0.01) assertThat(Background.idle()).isFalse();
    assertThat(text("table-search-says"))
        .startsWith("Looking for fewer cells: ")
        .endsWith(" % of what a search may take.");
    TableSearch search = Hands.ask(() -> analysis().receiver().tableSearch()).orElseThrow();
    // The mouse of the tests waits until all is quiet, and then there is nothing left to end.
    Button end = hands.node("table-search-end");
    hands.run(end::fire);
    settled();
    assertThat(search.share()).isLessThan(0.9);
    assertThat(hands.has("table-search")).isFalse();
    assertThat(analysis().receiver().table().result().orElseThrow().made().proven()).isFalse();
    assertThat(text("table-says")).contains("whether fewer than these do is not known");
  }
}
