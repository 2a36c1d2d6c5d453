package nocking.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.CompletableFuture;
import nocking.fit.Samples;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A search for the smallest table that somebody looks at, and ends. */
class TableSearchTest {
  private static final double[] RAW = {0, 1023, 347, 326, 441, 974, 629, 933, 652, 1021, 61};

  private static final double[] OUT = {
    0.8, 60.3, 17.9, 21.6, 20.3, 63.6, 30.4, 66.2, 32.1, 63.2, 7.9
  };
  private static final double TOLERANCE = 0.7122;

  private static Truth truth() {
    return Truth.of(new Samples(RAW, OUT), 0);
  }

  /** Ended at any time, even before it began, it has a table that holds, and claims no more. */
  @Test
  void anEndedSearchHasATableThatHolds() {
    var search = new TableSearch();
    search.end();
    FewestBreakPoints f = FewestBreakPoints.of(truth(), TOLERANCE, 0, false, search);
    assertThat(f.table().against(truth()).worst()).isLessThanOrEqualTo(TOLERANCE);
    assertThat(f.bound()).isEqualTo(7);
    assertThat(f.table().count()).isGreaterThanOrEqualTo(8);
    assertThat(f.proven()).isFalse();
    assertThat(search.share()).isLessThan(0.01);
  }

  /** Another thread sees it go forward, never back, and ends it long before its effort does. */
  @Test
  void anotherThreadSeesItGoOnAndEndsIt() {
    var search = new TableSearch();
    var found =
        CompletableFuture.supplyAsync(
            () -> FewestBreakPoints.of(truth(), TOLERANCE, 0, false, search));
    double before = 0;
    while (before < 0.02 && !found.isDone()) {
      double share = search.share();
      assertThat(share).isGreaterThanOrEqualTo(before);
      before = share;
      Thread.onSpinWait();
    }
    search.end();
    assertThat(found.join().proven()).isFalse();
    assertThat(search.share()).isBetween(0.02, 0.9);
  }

  /** So many cells with the least worst error: what is there when it is ended stays a table. */
  @ParameterizedTest
  @ValueSource(ints = {2, 4, 7})
  void anEndedDualHasATableOfSoManyCells(int cells) {
    var search = new TableSearch();
    search.end();
    LeastWorstError w = LeastWorstError.of(truth(), cells, 0, false, search);
    double worst = w.table().against(truth()).worst();
    assertThat(w.table().count()).isLessThanOrEqualTo(cells);
    assertThat(w.bound()).isLessThanOrEqualTo(worst);
  }
}
