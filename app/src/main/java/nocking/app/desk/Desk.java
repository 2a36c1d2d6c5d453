package nocking.app.desk;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import nocking.analysis.Analysis;
import nocking.analysis.ProbeInput;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.quantity.QuantityException;
import nocking.view.ProbeState;
import nocking.wiring.Observation;

/**
 * What lies on the desk. All methods belong to the interface thread; nothing here knows a control.
 * Every edit makes a new document, tells the listeners and hands the difference to the store.
 */
public final class Desk {
  /** What has changed. */
  public enum Change {
    /** The document; the selection may have moved with it. */
    DOCUMENT,
    SELECTION,
    PROBE,
    STEP,
    /** A message, the saved time, or the store itself. */
    STATUS
  }

  private static final double PROBE_START = 0.5;

  private final List<Consumer<Change>> listeners = new ArrayList<>();
  private final Map<Channel, Analysis> analyses = new IdentityHashMap<>();
  private final Map<String, Double> probes = new HashMap<>();
  private final History history = new History();
  private Store store;
  private Book book;
  private String selected;
  private WorkStep step = WorkStep.DEFINE;
  private Aside aside;
  private String message = "";
  private boolean messageIsBad;
  private boolean dark;
  private Settings settings = Settings.forgotten();
  private boolean together;
  private final BenchRuns runs = new BenchRuns(this);
  private final LiveMeter live = new LiveMeter(this);

  public Desk(Store store) {
    this.store = store;
    this.book = store.book();
    this.selected = first(book);
  }

  private static String first(Book book) {
    return book.channels().isEmpty() ? null : book.channels().getFirst().id();
  }

  /** Puts another book on the desk; the former store is closed. */
  public void open(Store other) {
    store.close();
    store = other;
    runs.forget();
    live.forget();
    book = other.book();
    history.clear();
    analyses.clear();
    selected = first(book);
    step = WorkStep.DEFINE;
    aside = null;
    sayOfOpening();
    tell(Change.DOCUMENT);
  }

  /** Says what is odd about the book that was opened; nothing when all is well. */
  public void sayOfOpening() {
    List<String> aside = store.setAside();
    if (!aside.isEmpty()) {
      String more = aside.size() == 1 ? "" : " And %d more.".formatted(aside.size() - 1);
      String end = aside.getFirst().endsWith(".") ? "" : ".";
      say(aside.getFirst() + end + more, true);
    } else {
      say(writable() ? "" : readOnlySentence(), !writable());
      if (writable()) runs().sayOfOpening();
    }
  }

  private String readOnlySentence() {
    return "Open read-only: %s. Nothing can be changed here.".formatted(store.readOnlyBecause());
  }

  public void listen(Consumer<Change> listener) {
    listeners.add(listener);
  }

  private void tell(Change change) {
    listeners.forEach(l -> l.accept(change));
    if (change == Change.SELECTION || change == Change.DOCUMENT) live.follow();
  }

  public Book book() {
    return book;
  }

  /** Runs at the bench. */
  public BenchRuns runs() {
    return runs;
  }

  /** The meter at the selected channel. */
  public LiveMeter live() {
    return live;
  }

  public Store store() {
    return store;
  }

  public boolean writable() {
    return store.readOnlyBecause().isEmpty();
  }

  /** The selected channel; empty while the book has none. */
  public Optional<Channel> channel() {
    return Optional.ofNullable(selected).flatMap(book::byId);
  }

  /** True when the selected channel may be edited. */
  public boolean editable() {
    return writable() && channel().map(c -> !c.journal().locked()).orElse(false);
  }

  /** Analysis of the selected channel; only while there is one. */
  public Analysis analysis() {
    return analysis(channel().orElseThrow());
  }

  /** Analysis of any channel; kept as long as the channel is in the book as it is. */
  public Analysis analysis(Channel channel) {
    return analyses.computeIfAbsent(channel, c -> Analysis.of(c, book.cards()));
  }

  /** Takes an analysis that was made elsewhere; one of a channel that is not here is let go. */
  public void know(Analysis made) {
    if (book.channels().stream().anyMatch(c -> c == made.channel())) {
      analyses.put(made.channel(), made);
    }
  }

  public void select(String id) {
    if (id.equals(selected)) return;
    history.seal();
    selected = id;
    // What was said was said of the channel before.
    message = "";
    tell(Change.SELECTION);
  }

  public WorkStep step() {
    return step;
  }

  public void step(WorkStep v) {
    if (v == step && aside == null) return;
    history.seal();
    step = v;
    aside = null;
    tell(Change.STEP);
  }

  /** The view beside the stages that is shown instead of one; empty for a stage. */
  public Optional<Aside> aside() {
    return Optional.ofNullable(aside);
  }

  public void aside(Aside v) {
    if (v == aside) return;
    history.seal();
    aside = v;
    tell(Change.STEP);
  }

  /** Input at the probe, in the channel's unit. */
  public double probe() {
    return channel()
        .map(
            c ->
                probes.getOrDefault(
                    c.id(), ProbeInput.nearest(c, c.definition().working().at(PROBE_START))))
        .orElse(0.0);
  }

  /**
   * Moves the probe; it stays inside the working or the sensor's rated range, and on a station of a
   * selector.
   */
  public void probe(double x) {
    Channel c = channel().orElse(null);
    if (c == null || !Double.isFinite(x)) return;
    double inside = ProbeInput.nearest(c, x);
    if (inside == probe() && probes.containsKey(c.id())) return;
    probes.put(c.id(), inside);
    tell(Change.PROBE);
  }

  public Optional<ProbeState> probeState() {
    return channel().flatMap(c -> analysis(c).at(probe()));
  }

  /**
   * Changes the selected channel.
   *
   * @param what for the log and the undo command
   * @param key edits with the same key that follow one another are one step of undo; empty for a
   *     step of its own
   * @return false when the channel is locked or the book read-only, which is said as a message
   */
  public boolean edit(String what, String key, UnaryOperator<Channel> change) {
    Channel before = channel().orElse(null);
    if (before == null) return false;
    if (!editable()) {
      refuse(
          writable()
              ? "%s is locked. Unlock it with Ctrl+L first.".formatted(before.tag())
              : readOnlySentence());
      return false;
    }
    Channel after = change.apply(before);
    if (!after.equals(before)) replace(book.with(after), what, key, selected);
    return true;
  }

  /**
   * Writes down what was seen on the selected channel. A locked channel takes it too: that
   * something was looked at changes nothing that was settled.
   *
   * @return false when the book is read-only, which is said as a message
   */
  public boolean observe(String what, List<Observation> seen) {
    return writeDown(what, "", c -> c.wiring(w -> w.withObservations(seen)));
  }

  /**
   * Writes down what was done or seen with the selected channel, which a locked one takes too.
   *
   * @param change nothing that was settled
   * @return false when the book is read-only, which is said as a message
   */
  public boolean writeDown(String what, String key, UnaryOperator<Channel> change) {
    Channel before = channel().orElse(null);
    if (before == null || refused()) return false;
    Channel after = change.apply(before);
    if (!after.equals(before)) replace(book.with(after), what, key, selected);
    return true;
  }

  /** Changes the selected channel whether it is locked or not; for the lock itself. */
  public void force(String what, UnaryOperator<Channel> change) {
    channel().ifPresent(c -> replace(book.with(change.apply(c)), what, "", selected));
  }

  /** Adds a channel and selects it. */
  public void add(Channel channel, String what) {
    if (refused()) return;
    replace(book.with(channel), what, "", channel.id());
    step(WorkStep.DEFINE);
  }

  /** Adds channels from outside; the first of them is selected. */
  public void addAll(List<Channel> channels, String what) {
    if (refused() || channels.isEmpty()) return;
    Book next = book;
    for (Channel c : channels) next = next.with(c);
    replace(next, what, "", channels.getFirst().id());
  }

  /** Changes what belongs to the whole book: its cards and its drawer. */
  public boolean editBook(String what, String key, UnaryOperator<Book> change) {
    if (refused()) return false;
    Book next = change.apply(book);
    if (!next.equals(book)) replace(next, what, key, selected);
    return true;
  }

  /** Takes the selected channel out of the book. */
  public void remove() {
    Channel c = channel().orElse(null);
    if (c == null || refused()) return;
    int at = book.channels().indexOf(c);
    Book next = book.without(c.id());
    String neighbour =
        next.channels().isEmpty()
            ? null
            : next.channels().get(Math.min(at, next.channels().size() - 1)).id();
    replace(next, "remove " + c.tag(), "", neighbour);
    say("%s is out of the book. Undo brings it back.".formatted(c.tag()), false);
  }

  private boolean refused() {
    if (!writable()) refuse(readOnlySentence());
    return !writable();
  }

  /** Says why nothing is changed; among several edits that are one, none of them is made. */
  private void refuse(String sentence) {
    if (together) throw new QuantityException(sentence.replaceAll("\\.$", ""));
    say(sentence, true);
  }

  private void replace(Book next, String what, String key, String selection) {
    if (together) {
      book = next;
      return;
    }
    history.push(new History.State(book, selected), what, key);
    message = "";
    put(next, what, selection);
  }

  private void put(Book next, String what, String selection) {
    Book before = book;
    book = next;
    // What is said of a sensor's card depends on the cards.
    if (!before.cards().equals(next.cards())) analyses.clear();
    else forget(next);
    boolean moved = !Objects.equals(selection, selected);
    selected = selection != null && next.byId(selection).isPresent() ? selection : first(next);
    store.save(before, next, what);
    tell(Change.DOCUMENT);
    if (moved) tell(Change.SELECTION);
  }

  /** Analyses of channels as they no longer are go; what stays is looked up by the same object. */
  private void forget(Book next) {
    var kept = new IdentityHashMap<Channel, Analysis>();
    for (Channel c : next.channels()) {
      Analysis a = analyses.get(c);
      if (a != null) kept.put(c, a);
    }
    analyses.clear();
    analyses.putAll(kept);
  }

  public void undo() {
    history
        .undo(new History.State(book, selected))
        .ifPresent(
            s -> {
              put(s.state().book(), "undo " + s.what(), s.state().selected());
              say("Undone: " + s.what() + ".", false);
            });
  }

  public void redo() {
    history
        .redo(new History.State(book, selected))
        .ifPresent(
            s -> {
              put(s.state().book(), "redo " + s.what(), s.state().selected());
              say("Done again: " + s.what() + ".", false);
            });
  }

  /**
   * Several edits that are one: written, shown and undone together, and none of them where one is
   * refused.
   *
   * @throws QuantityException as the work does; the document is as it was then
   */
  public void asOne(String what, Runnable work) {
    Book before = book;
    Book after = before;
    together = true;
    try {
      work.run();
      after = book;
    } finally {
      together = false;
      book = before;
    }
    if (!after.equals(before)) replace(after, what, "", selected);
  }

  /** What undo would take back; empty when there is nothing. */
  public Optional<String> undoable() {
    return history.undoable();
  }

  public Optional<String> redoable() {
    return history.redoable();
  }

  /** Ends a run of edits with one key: the field has lost the focus. */
  public void seal() {
    history.seal();
  }

  /** Shows one sentence below the desk; empty takes it away. */
  public void say(String sentence, boolean bad) {
    message = sentence;
    messageIsBad = bad;
    tell(Change.STATUS);
  }

  public String message() {
    return message;
  }

  public boolean messageIsBad() {
    return messageIsBad;
  }

  /** The store has news: something was saved, or could not be. */
  public void storeChanged() {
    tell(Change.STATUS);
  }

  /** How the window is liked. */
  public Settings settings() {
    return settings;
  }

  public void settings(Settings v) {
    settings = v;
    dark = v.is("dark", dark);
  }

  public boolean dark() {
    return dark;
  }

  public void dark(boolean v) {
    dark = v;
    settings.set("dark", v);
    tell(Change.DOCUMENT);
  }
}
