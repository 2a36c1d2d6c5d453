package nocking.app.step.table;

import java.util.Optional;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.util.Duration;
import nocking.app.control.Paper;
import nocking.table.TableSearch;
import nocking.view.ReceiverView;

/**
 * How far a search for the smallest table is, and the way to take what it has. It stands in its
 * paper only while there is such a search.
 */
final class SearchBar {
  /** A search that is through before the first look is never seen. */
  private static final Duration LOOKS = Duration.millis(400);

  private final ProgressBar progress = new ProgressBar(0);
  private final Label says = Paper.caption("");
  private final Button take = new Button("Take what is found");
  private final Timeline clock = new Timeline(new KeyFrame(LOOKS, e -> look()));
  private final HBox bar = new HBox(10, progress, says, take);
  private final Paper paper;
  private ReceiverView watched;

  /**
   * @param paper under whose title it stands
   */
  SearchBar(Paper paper) {
    this.paper = paper;
    bar.setAlignment(Pos.CENTER_LEFT);
    bar.setId("table-search");
    progress.setId("table-search-share");
    says.setId("table-search-says");
    take.setId("table-search-end");
    take.getStyleClass().add("tiny");
    take.setMinWidth(Region.USE_PREF_SIZE);
    take.setOnAction(e -> end());
    clock.setCycleCount(Animation.INDEFINITE);
  }

  /** From now on the search of this receiver, as long as there is one. */
  void watch(ReceiverView receiver) {
    watched = receiver;
    clock.playFromStart();
  }

  /** The table is there. */
  void done() {
    watched = null;
    clock.stop();
    paper.getChildren().remove(bar);
  }

  private void look() {
    Optional<TableSearch> search = watched == null ? Optional.empty() : watched.tableSearch();
    if (search.isEmpty()) {
      paper.getChildren().remove(bar);
      return;
    }
    if (!paper.getChildren().contains(bar)) paper.getChildren().add(1, bar);
    show(search.get());
  }

  private void show(TableSearch search) {
    progress.setProgress(search.share());
    take.setDisable(search.ended());
    says.setText(
        search.ended()
            ? "Ending …"
            : "Looking for fewer cells: %.0f %% of what a search may take."
                .formatted(100 * search.share()));
  }

  private void end() {
    if (watched == null) return;
    watched.tableSearch().ifPresent(TableSearch::end);
    look();
  }
}
