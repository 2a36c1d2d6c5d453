package nocking.app.step.collect;

import java.util.List;
import java.util.Locale;
import javafx.scene.Node;
import javafx.scene.layout.StackPane;
import nocking.analysis.LiveReading;
import nocking.app.control.Segments;
import nocking.app.desk.Desk;
import nocking.app.desk.Store;
import nocking.app.step.Files;
import nocking.app.step.Sheet;

/** The view of the fourth stage: points by hand, runs at the bench, and the instruments. */
public final class CollectSheet implements Sheet {
  private enum Look {
    POINTS,
    RUN,
    INSTRUMENTS;

    String title() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  private final Desk desk;
  private final TypedPoints typed;
  private final RunView run;
  private final InstrumentsPanel instruments;
  private final List<Segments<Look>> choosers;
  private final StackPane root = new StackPane();
  private Look look = Look.POINTS;
  private Store looked;

  public CollectSheet(Desk desk, Files files) {
    this.desk = desk;
    choosers = List.of(chooser(), chooser(), chooser());
    typed = new TypedPoints(desk, files, choosers.get(0));
    run = new RunView(desk, choosers.get(1));
    instruments = new InstrumentsPanel(desk, choosers.get(2));
    desk.runs()
        .listen(
            () -> {
              if (desk.channel().isPresent() && look == Look.RUN) run.news();
            });
  }

  private Segments<Look> chooser() {
    return new Segments<>("collect-view", List.of(Look.values()), Look::title, this::choose);
  }

  private void choose(Look v) {
    look = v;
    refresh();
  }

  /** The chosen point takes it as one more reading. */
  @Override
  public boolean live(LiveReading r) {
    return look == Look.POINTS && typed.live(r);
  }

  @Override
  public Node node() {
    return root;
  }

  @Override
  public void switched() {
    typed.switched();
    run.switched();
  }

  @Override
  public void refresh() {
    if (desk.channel().isEmpty()) return;
    if (desk.store() != looked) {
      looked = desk.store();
      desk.runs().look();
    }
    choosers.forEach(c -> c.show(look));
    Node shown =
        switch (look) {
          case POINTS -> typed.node();
          case RUN -> run.node();
          case INSTRUMENTS -> instruments.node();
        };
    if (root.getChildren().isEmpty() || root.getChildren().getFirst() != shown) {
      root.getChildren().setAll(shown);
    }
    switch (look) {
      case POINTS -> typed.refresh();
      case RUN -> run.refresh();
      case INSTRUMENTS -> instruments.refresh();
    }
  }
}
