package nocking.book;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import nocking.points.RawUnit;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Act;
import nocking.run.Conditions;
import nocking.run.Course;
import nocking.run.Instrument;
import nocking.run.Purpose;
import nocking.run.RunChannel;
import nocking.run.RunEntry;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.RunProgress;
import nocking.run.SettleRule;
import nocking.run.StoredRun;
import nocking.run.Sweep;
import nocking.run.Unsettled;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class RunTableTest {
  @TempDir Path folder;

  private Path file() {
    return folder.resolve("runs.nocking");
  }

  private BookFile open() {
    return BookFile.open(file(), Clock.systemUTC());
  }

  static RunPlan plan(int channels) {
    Instrument meter =
        Instrument.of("M", Instrument.Language.SCPI, "127.0.0.1:1", "READ?", Unit.VOLT);
    return new RunPlan(
        "Bath, spring",
        RunPlan.Kind.POINTS,
        "°C",
        IntStream.range(0, channels)
            .mapToObj(
                i ->
                    new RunChannel(
                        "c" + i, "C-" + i, RawUnit.VOLTS, meter, new SettleRule.Dwell(3), "40 mm"))
            .toList(),
        Instrument.byHand("Bath", Unit.CELSIUS),
        List.of(Value.of(0), Value.of(10), Value.of(20)),
        Course.UP,
        1,
        7,
        3,
        1,
        60,
        0.5,
        Unsettled.TAKE,
        Purpose.AS_FOUND,
        new Conditions("KS", "21 °C", "5.00 V", "40 mm", ""),
        null,
        null,
        null,
        null);
  }

  /** A reading, one that is missing, or a negative zero. */
  private static double odd(Random r) {
    return r.nextInt(9) == 0 ? Double.NaN : r.nextInt(9) == 0 ? -0.0 : r.nextDouble();
  }

  /**
   * Goes on with a run for so many sweeps; what was written down.
   *
   * @param seed of the readings; below 0 all of them are alike
   */
  private static List<RunEntry> goOn(RunProgress p, RunJournal journal, int sweeps, long seed) {
    var r = new Random(seed);
    var entries = new ArrayList<RunEntry>();
    long at = 1_795_000_000_000L + 100_000 * seed;
    var begin = new Act(at, Act.Kind.BEGIN, "");
    journal.append(begin);
    p.take(begin);
    entries.add(begin);
    for (int i = 0; i < sweeps && !p.over(); i++) {
      at += 1000;
      var raw = new ArrayList<Double>();
      for (int k = 0; k < p.plan().channels().size(); k++) {
        raw.add(seed < 0 ? 1.0 + k : odd(r));
      }
      var s = new Sweep(at, p.next(), p.target().orElseThrow().setPoint() + 0.1, raw);
      var done = p.take(s);
      journal.append(s, done);
      done.ifPresent(entries::add);
    }
    if (p.over()) {
      var end = new Act(at, Act.Kind.END, "");
      journal.append(end);
      entries.add(end);
    }
    return entries;
  }

  /** Broken off and gone on with again and again, over as many openings of the file. */
  @ParameterizedTest
  @ValueSource(ints = {1, 3, 8})
  void aRunGoesOnWhereItWasBrokenOff(int channels) {
    RunPlan plan = plan(channels);
    var expected = new ArrayList<RunEntry>();
    try (BookFile book = open()) {
      book.begin("r", plan);
    }
    long seed = 0;
    StoredRun stored;
    do {
      try (BookFile book = open()) {
        stored = book.runs().getFirst();
        assertThat(stored.plan()).isEqualTo(plan);
        assertThat(stored.entries()).isEqualTo(expected);
        assertThat(book.problems()).isEmpty();
        if (stored.unfinished()) {
          expected.addAll(goOn(stored.progress(), book.journal("r", plan), 11, seed++));
        }
      }
    } while (stored.unfinished());
    assertThat(seed).isGreaterThan(1);
    assertThat(stored.progress().points()).hasSizeGreaterThanOrEqualTo(3);
  }

  /**
   * However many readings a point takes to settle, all are there and vouched for; with little
   * memory ({@code -Dnocking.readings=1000000 -Xmx64m}) as with much.
   */
  @Test
  void manyReadingsTakeNoMemory() {
    int sweeps = Integer.getInteger("nocking.readings", 40_000) / 8;
    RunPlan endless =
        plan(8)
            .withGiveUp(1e9)
            .withChannels(
                plan(8).channels().stream()
                    .map(
                        c ->
                            new RunChannel(
                                c.channel(),
                                c.tag(),
                                c.raw(),
                                c.meter(),
                                new SettleRule.Stable(1e-9, 1e-9, 30),
                                ""))
                    .toList());
    try (BookFile book = open()) {
      goOn(new RunProgress(endless), book.begin("r", endless), sweeps, 3);
      StoredRun stored = book.runs().getFirst();
      assertThat(stored.sweeps()).isEqualTo(sweeps);
      assertThat(stored.after()).isEqualTo(sweeps);
      assertThat(book.problems()).isEmpty();
    }
  }

  /**
   * Another window writes for longer than one waits: it is said, and the reading is written after.
   */
  @Test
  void aBookThatIsInUseTakesTheReadingLater() throws SQLException {
    RunPlan plan = plan(2);
    var p = new RunProgress(plan);
    try (BookFile book = open();
        var other = DriverManager.getConnection("jdbc:sqlite:" + file());
        var s = other.createStatement()) {
      RunJournal journal = book.begin("r", plan);
      goOn(p, journal, 1, -1);
      var sweep = new Sweep(1_795_000_009_000L, 0, 0.1, List.of(1.5, 2.5));
      s.execute("BEGIN IMMEDIATE");
      assertThatThrownBy(() -> journal.append(sweep, Optional.empty()))
          .hasMessageEndingWith("another program is using it just now");
      s.execute("ROLLBACK");
      journal.append(sweep, Optional.empty());
      assertThat(book.runs().getFirst().sweeps()).isEqualTo(2);
      assertThat(book.problems()).isEmpty();
    }
  }

  @Test
  void whatIsMissingIsSaid() {
    RunPlan plan = plan(2);
    try (BookFile book = open()) {
      goOn(new RunProgress(plan), book.begin("r", plan), 9, -1);
      StoredRun run = book.runs().getFirst();
      assertThat(run.missing())
          .isEqualTo(
              "1 of 3 points are complete; 3 sweeps of the point under way are kept and do"
                  + " not count.");
      assertThat(book.log("c1", 9)).extracting(LogEntry::text).contains("run Bath, spring begins");
    }
  }

  /** Every number of a run that someone changes afterwards shows. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "UPDATE reading SET raw = raw + 1e-9 WHERE sweep = 4 AND channel = 0",
        "UPDATE reading SET applied = 7 WHERE sweep = 2 AND channel = 1",
        "UPDATE reading SET at = at + 1 WHERE sweep = 3 AND channel = 1",
        "DELETE FROM reading WHERE sweep = 5",
        "DELETE FROM reading WHERE sweep = 1",
        "UPDATE run_entry SET document = replace(document, '20.1', '20.2')",
        "DELETE FROM run_entry WHERE number = 2",
        "DELETE FROM run_entry WHERE kind = 'end'",
        "UPDATE run SET plan = replace(plan, 'KS', 'XX')",
        "DELETE FROM run"
      })
  void whatIsChangedAfterwardsShows(String change) throws SQLException {
    RunPlan plan = plan(2);
    try (BookFile book = open()) {
      RunJournal journal = book.begin("r", plan);
      var p = new RunProgress(plan);
      for (long seed = 0; !p.over(); seed++) goOn(p, journal, 40, seed);
      assertThat(book.problems()).isEmpty();
    }
    try (var c = DriverManager.getConnection("jdbc:sqlite:" + file());
        var s = c.createStatement()) {
      assertThat(s.executeUpdate(change)).isPositive();
    }
    try (BookFile book = open()) {
      assertThat(book.problems()).as(change).isNotEmpty();
    }
  }

  /** A book that cannot be written takes nothing, and the run stands where it stood. */
  @Test
  void whatIsNotOnTheDiskIsNotAcknowledged() {
    RunPlan plan = plan(1);
    try (BookFile book = open()) {
      book.begin("r", plan);
    }
    try (BookFile book = BookFile.openToRead(file(), Clock.systemUTC())) {
      RunJournal journal = book.journal("r", plan);
      var s = new Sweep(1, 0, 1, List.of(2.0));
      assertThatThrownBy(() -> journal.append(s, Optional.empty()))
          .isInstanceOf(BookException.class)
          .hasMessageContaining("read-only");
      assertThat(book.runs().getFirst().sweeps()).isZero();
    }
  }

  @Test
  void instrumentsAreKeptAndVouchedFor() throws SQLException {
    Instrument i =
        Instrument.of("Bath 2", Instrument.Language.SCPI, "127.0.0.1:5025", "READ?", Unit.CELSIUS)
            .withSet("SOUR %s")
            .withDue("2027-03-01");
    try (BookFile book = open()) {
      book.saveInstruments(List.of(i, Instrument.byHand("Rule", Unit.of("mm"))), "add");
      assertThat(book.read().instruments()).first().isEqualTo(i);
      assertThat(book.problems()).isEmpty();
    }
    try (var c = DriverManager.getConnection("jdbc:sqlite:" + file());
        var s = c.createStatement()) {
      s.executeUpdate("UPDATE instrument SET document = '{\"of tomorrow\": 1}' WHERE place = 1");
    }
    try (BookFile book = open()) {
      assertThat(book.read().instruments()).containsExactly(i);
      assertThat(book.setAside()).singleElement().asString().startsWith("The instrument Rule");
      book.saveInstruments(List.of(i.withDue("2028-03-01")), "change");
      assertThat(book.problems()).isEmpty();
    }
    try (BookFile book = open()) {
      book.read();
      assertThat(book.setAside()).hasSize(1);
    }
  }
}
