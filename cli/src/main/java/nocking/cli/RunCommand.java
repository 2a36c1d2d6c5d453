package nocking.cli;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import nocking.analysis.Analysis;
import nocking.analysis.JobAdoption;
import nocking.analysis.Jobs;
import nocking.analysis.RunAdoption;
import nocking.analysis.RunDraft;
import nocking.analysis.RunExpectation;
import nocking.analysis.RunSuspicion;
import nocking.bench.instrument.InstrumentException;
import nocking.bench.run.BenchClock;
import nocking.bench.run.Rig;
import nocking.bench.run.RunEngine;
import nocking.bench.run.RunEngine.Unattended;
import nocking.bench.simulated.SteppedClock;
import nocking.book.BookException;
import nocking.book.BookFile;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.DocumentException;
import nocking.channel.RunJson;
import nocking.diagnosis.MeasuringCaution;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.procedure.Procedure;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;
import nocking.quantity.Unit;
import nocking.run.Act;
import nocking.run.Instrument;
import nocking.run.Instrument.Language;
import nocking.run.PlanChanges;
import nocking.run.PlanCorrection;
import nocking.run.RunChannel;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.RunProgress;
import nocking.run.RunProgress.Phase;
import nocking.run.StoredRun;
import nocking.run.TcpAddress;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** A run without a window; exit code 1 when it was stopped before its end. */
@Command(
    name = "run",
    description = {
      "Carry out a run: every reading is in the book before anything is said of it.",
      "Interrupt it (Ctrl+C) and it ends after the reading under way; --resume goes on with it."
    })
final class RunCommand extends JsonOption {
  @Parameters(
      index = "0",
      arity = "0..1",
      paramLabel = "PLAN.json",
      description = "What to do; --draft writes one.")
  Path plan;

  @Option(names = "--book", paramLabel = "FILE", required = true, description = "The bench book.")
  Path book;

  @Option(names = "--resume", description = "Go on with the newest run of this plan.")
  boolean resume;

  @Option(
      names = "--corrected",
      description = {
        "With --resume: what was read so far counts in the units and by the certificates of the",
        "plan as it is now; the readings stay in the book as they came."
      })
  boolean corrected;

  @Option(
      names = "--anew",
      description = "Begin a new run although one of this plan waits to be gone on with.")
  boolean anew;

  @Option(
      names = "--end",
      description = "End the newest run of this plan that waits; what it has becomes points.")
  boolean end;

  @Option(
      names = "--adopt",
      description = {
        "Take over into the channel what a procedure found, where its record allows it;",
        "with --resume of one that has ended."
      })
  boolean adopt;

  @Option(
      names = "--speed",
      paramLabel = "F",
      defaultValue = "1",
      description = "Bench seconds in a second, for a simulated bench.")
  double speed;

  @Option(
      names = "--bench",
      paramLabel = "HOST:PORT",
      description = "A simulated bench whose time goes on by command; waits take no time.")
  String bench;

  @Option(
      names = "--draft",
      description = "Print a plan for --channel, --reference and --meter instead of going by one.")
  boolean draft;

  @Option(names = "--channel", paramLabel = "TAG", description = "For --draft: a channel to read.")
  List<String> channels = new ArrayList<>();

  @Option(
      names = "--meter",
      paramLabel = "HOST:PORT",
      description = "For --draft: the meter of each channel, in their order.")
  List<String> meters = new ArrayList<>();

  @Option(
      names = "--meter-unit",
      paramLabel = "UNIT",
      defaultValue = "V",
      description =
          "For --draft: in what the meters read, V at the receiver, ohm or mA at the sensor itself"
              + " (default: V).")
  String meterUnit;

  @Option(
      names = "--reference",
      paramLabel = "HOST:PORT",
      description = "For --draft: a reference that is told its set points with SOUR.")
  String reference;

  @Option(
      names = "--procedure",
      paramLabel = "NAME",
      description = "For --draft: a procedure of the first channel instead of set points.")
  String procedure;

  @Option(
      names = "--pours",
      description = "For --draft: the set points are totals of measured pours.")
  boolean pours;

  @Option(
      names = "--yes",
      description =
          "Take each step that hands have to do for done at once, as on a simulated bench.")
  boolean yes;

  @Option(
      names = "--take-doubtful",
      description =
          "Take, marked, what is not as the book expects it; else the run ends there and waits.")
  boolean takeDoubtful;

  @Option(
      names = "--attended",
      description = {
        "Somebody is there: words on standard input are heard (hold, go, skip, repeat, take,",
        "note, stop, each with a reason), and what is not as expected waits for one."
      })
  boolean attended;

  @Override
  int run(Answer answer) {
    if (draft) return draft(answer);
    if (plan == null) throw new QuantityException("a plan is missing; --draft writes one");
    if (attended && (yes || takeDoubtful)) {
      throw new QuantityException(
          "--attended waits for words; --yes and --take-doubtful are for where nobody is there");
    }
    if (!(speed > 0) || Double.isInfinite(speed)) {
      throw new QuantityException("read speed %s, expected more than 0".formatted(speed));
    }
    RunPlan wanted = RunJson.readPlanFile(ChannelFiles.text(plan), plan.getFileName().toString());
    wanted.requireUnits();
    Jobs.requireReceiver(wanted);
    if (!Files.exists(book)) throw new DocumentException(book + " does not exist");
    if (wanted.typed()) {
      throw new QuantityException(
          "the readings of this plan are typed by hand: that takes the window");
    }
    try (BookFile file = open()) {
      return carryOut(answer, file, inBook(wanted, file.read()));
    }
  }

  private BookFile open() {
    BookFile opened = BookFile.open(book, Clock.systemUTC());
    if (opened.writable()) return opened;
    opened.close();
    throw new BookException(
        BookException.Cause.OUTSIDE, book + " cannot be changed: " + opened.readOnlyBecause());
  }

  private int draft(Answer answer) {
    if (channels.isEmpty() || channels.size() != meters.size() || reference == null) {
      throw new QuantityException("--draft needs --reference and for each --channel a --meter");
    }
    if (pours && procedure != null) {
      throw new QuantityException("--pours and --procedure are two different jobs; one of them");
    }
    TcpAddress.of(reference);
    meters.forEach(TcpAddress::of);
    Book read;
    try (BookFile file = BookFile.openToRead(book, Clock.systemUTC())) {
      read = file.read();
    }
    var analyses = new ArrayList<Analysis>();
    var meterOf = new ArrayList<Instrument>();
    for (int i = 0; i < channels.size(); i++) {
      Channel c = ChannelFiles.find(read, channels.get(i), book);
      analyses.add(Analysis.of(c));
      meterOf.add(meter(c, meters.get(i)));
    }
    Analysis first = analyses.getFirst();
    Procedure job = procedure == null ? null : StepsOnLine.named(procedure, first);
    Unit unit = job == null ? first.channel().unit() : Jobs.unit(job, first.channel());
    RunPlan p =
        RunDraft.plan(
            analyses,
            Instrument.of("Reference", Language.SCPI, reference, "READ?", unit).withSet("SOUR %s"),
            meterOf);
    if (job != null) p = Jobs.plan(p, job, first.channel());
    else if (pours) p = RunDraft.pours(p, first);
    spec.commandLine().getOut().print(RunJson.planFile(p));
    spec.commandLine().getOut().flush();
    return 0;
  }

  /** The meter of a draft, which reads what it is told to read. */
  private Instrument meter(Channel c, String address) {
    Unit unit = Unit.of(meterUnit);
    RawUnit raw = RawUnit.of(unit);
    boolean known = raw.unit().dimension().equals(unit.dimension()) && raw != RawUnit.COUNTS;
    if (!known) {
      throw new QuantityException(
          "read --meter-unit %s, expected V, ohm or mA".formatted(meterUnit));
    }
    if (raw.ofSensor() && RawScale.own(c.design().sensor()).filter(raw::equals).isEmpty()) {
      throw new QuantityException(
          "%s cannot be read in %s: its sensor gives nothing of the kind"
              .formatted(c.tag(), raw.title()));
    }
    String name = "Meter at " + c.tag();
    return switch (raw) {
      case OHMS -> Instrument.of(name, Language.SCPI, address, "MEAS:RES?", Unit.OHM);
      case MILLIAMPERES -> Instrument.of(name, Language.SCPI, address, "MEAS:CURR?", Unit.AMPERE);
      default -> Instrument.of(name, Language.SCPI, address, "READ?", Unit.VOLT);
    };
  }

  /** The plan with the ids that its channels have in the book; a tag will do in a plan. */
  private RunPlan inBook(RunPlan p, Book read) {
    var found = new ArrayList<RunChannel>();
    for (RunChannel c : p.channels()) {
      Channel channel =
          read.byId(c.channel()).orElseGet(() -> ChannelFiles.find(read, c.channel(), book));
      if (channel.journal().locked()) {
        throw new DocumentException("%s is locked; unlock it first".formatted(channel.tag()));
      }
      found.add(c.withChannel(channel.id(), channel.tag()));
    }
    return RunExpectation.in(p.withChannels(found), id -> read.byId(id).map(Analysis::of));
  }

  private int carryOut(Answer answer, BookFile file, RunPlan p) {
    Optional<StoredRun> waiting =
        file.runs().stream().filter(r -> r.unfinished() && r.plan().likeWork(p)).findFirst();
    Optional<StoredRun> ended = waiting.isPresent() ? Optional.empty() : notTakenOver(file, p);
    if (resume && ended.isPresent()) return takeOver(answer, file, ended.get());
    if (resume && adopt && waiting.isEmpty()) {
      Optional<StoredRun> found = found(file, p);
      if (found.isPresent()) {
        return say(answer, file, found.get().id(), found.get().progress(), "");
      }
    }
    if (end) return close(answer, file, waiting);
    if (!resume && ended.isPresent()) {
      err()
          .println(
              "an earlier run of this plan has ended, and its points are not in %s: --resume would take them over"
                  .formatted(lacking(ended.get(), file.read())));
    }
    if (resume && waiting.isEmpty()) {
      throw new DocumentException(
          "no run of this plan waits in %s to be gone on with".formatted(book));
    }
    if (!resume && !anew && waiting.isPresent()) {
      throw new DocumentException(
          "a run of this plan waits in %s: %s --resume goes on with it, --anew begins another"
              .formatted(book, waiting.get().missing()));
    }
    RunProgress progress = resume ? waiting.get().progress() : new RunProgress(p);
    PlanChanges changes = PlanChanges.of(progress.plan(), p);
    if (resume) requireSame(changes);
    else begins(p, file.read());
    String id = resume ? waiting.get().id() : Book.newId();
    var rig = new Rig(p);
    BenchClock clock = reach(rig);
    if (resume && changes.any()) putRight(file, id, progress, p, changes);
    RunJournal journal = resume ? file.journal(id, progress.plan()) : file.begin(id, p);
    if (resume) err().println(waiting.get().missing());
    Book read = file.read();
    var finished = new CountDownLatch(1);
    try {
      RunEngine engine = engine(progress, journal, rig, clock, read);
      file.whenEnding(() -> end(engine, finished));
      try {
        engine.run();
      } finally {
        letGo(clock);
      }
      if (progress.over()) adopt(file, id, progress);
      return say(answer, file, id, progress, engine.doubted());
    } finally {
      finished.countDown();
    }
  }

  /**
   * What was read otherwise is not mixed with what comes; what only counts otherwise needs a yes.
   */
  private void requireSame(PlanChanges changes) {
    if (!changes.meaning().isEmpty()) {
      throw new DocumentException(
          "%s is not the plan of the run that waits: %s. --end keeps its points, --anew begins another"
              .formatted(plan.getFileName(), String.join("; ", changes.meaning())));
    }
    if (!changes.counting().isEmpty() && !corrected) {
      throw new DocumentException(
          "%s is not the plan of the run that waits: %s. --corrected counts what was read so far by it, too; --anew begins another"
              .formatted(plan.getFileName(), String.join("; ", changes.counting())));
    }
  }

  /** From here on the plan as it is now; what it makes of what was read is said. */
  private void putRight(
      BookFile file, String id, RunProgress progress, RunPlan now, PlanChanges changes) {
    var correction = new PlanCorrection(Clock.systemUTC().millis(), now, changes.says());
    file.putRight(id, progress.plan(), correction);
    progress.take(correction);
    for (String c : changes.counting()) err().println("what was read so far counts by it: " + c);
    for (String c : changes.manner()) err().println("from here on " + c);
  }

  /**
   * What cannot be carried out is refused before the first reading; what stays in the run is said.
   */
  private void begins(RunPlan p, Book read) {
    RunAdoption.requireOneQuantity(p, read);
    for (String e : RunExpectation.elsewhere(p)) {
      err().println(e + ": its readings stay in the run and make no points");
    }
    Stream.concat(
            Stream.of(p.reference())
                .flatMap(r -> p.beside() == null ? Stream.of(r) : Stream.of(r, p.beside())),
            p.channels().stream().map(RunChannel::meter))
        .filter(i -> i.corrections() != null)
        .map(i -> "%s: %s".formatted(i.name(), i.corrections().says(i.unit())))
        .distinct()
        .forEach(err()::println);
    p.channels().stream()
        .map(c -> MeasuringCaution.before(c.meter().stands()))
        .filter(c -> !c.isEmpty())
        .distinct()
        .forEach(c -> err().println("Caution: " + c));
  }

  private int close(Answer answer, BookFile file, Optional<StoredRun> waiting) {
    StoredRun run =
        waiting.orElseThrow(
            () -> new DocumentException("no run of this plan waits in %s".formatted(book)));
    var stop = new Act(Clock.systemUTC().millis(), Act.Kind.STOP, "not gone on with");
    file.journal(run.id(), run.plan()).append(stop);
    RunProgress p = run.progress();
    p.take(stop);
    adopt(file, run.id(), p);
    say(answer, file, run.id(), p, "");
    return 0;
  }

  /** The newest run of a plan that ended, and was killed before its points were put in. */
  private static Optional<StoredRun> notTakenOver(BookFile file, RunPlan p) {
    Book read = file.read();
    return file.runs().stream()
        .filter(r -> r.plan().likeWork(p) && !RunAdoption.lacking(r, read).isEmpty())
        .findFirst();
  }

  /** The newest run of a procedure that has come to its end. */
  private static Optional<StoredRun> found(BookFile file, RunPlan p) {
    if (p.procedure() == null) return Optional.empty();
    return file.runs().stream()
        .filter(r -> r.plan().likeWork(p) && r.progress().phase() == Phase.DONE)
        .findFirst();
  }

  private static String lacking(StoredRun run, Book read) {
    return RunAdoption.lacking(run, read).stream()
        .map(Channel::tag)
        .collect(Collectors.joining(", "));
  }

  private int takeOver(Answer answer, BookFile file, StoredRun run) {
    err()
        .println(
            "the run had ended before its points were in %s; they are taken over now"
                .formatted(lacking(run, file.read())));
    adopt(file, run.id(), run.progress());
    return say(answer, file, run.id(), run.progress(), "");
  }

  /** Whoever ends the program waits for the reading under way, and what is done with it. */
  private static void end(RunEngine engine, CountDownLatch ended) {
    engine.breakOff();
    try {
      ended.await(10, TimeUnit.SECONDS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private PrintWriter err() {
    return spec.commandLine().getErr();
  }

  private RunEngine engine(
      RunProgress progress, RunJournal journal, Rig rig, BenchClock clock, Book read) {
    RunPlan p = progress.plan();
    var stepped = clock instanceof SteppedClock c ? c : null;
    var steps = new StepsOnLine(err(), rig, stepped, yes, attended);
    var reporter = new RunReporter(err(), attended);
    boolean bySteps = p.procedure() != null;
    var engine = new RunEngine(progress, journal, rig, clock, bySteps ? steps::changed : reporter);
    Analysis first = Analysis.of(read.byId(p.channels().getFirst().channel()).orElseThrow());
    engine.closing(q -> Jobs.closing(q, first)).forbidding(q -> Jobs.forbids(q, first));
    engine
        .explaining(RunSuspicion.of(p, id -> read.byId(id).map(Analysis::of), read.priorWeights()))
        .unattended(attended ? null : takeDoubtful ? Unattended.TAKE : Unattended.BREAK_OFF);
    var in = new BufferedReader(new InputStreamReader(System.in));
    if (bySteps) steps.hear(engine, in);
    else if (attended) new WordsOnLine(err()).hear(engine, in);
    return engine;
  }

  /**
   * The time of the bench, and all instruments connected: what cannot be reached leaves no run
   * behind.
   */
  private BenchClock reach(Rig rig) {
    BenchClock clock = clock();
    try {
      rig.connect();
      return clock;
    } catch (InstrumentException e) {
      rig.close();
      letGo(clock);
      throw new BookException(BookException.Cause.OUTSIDE, e.getMessage(), e);
    }
  }

  private BenchClock clock() {
    if (bench == null) return BenchClock.of(Clock.systemUTC(), speed);
    try {
      return new SteppedClock(bench, Clock.systemUTC().millis());
    } catch (IOException e) {
      throw silent(e);
    }
  }

  private void letGo(BenchClock clock) {
    if (!(clock instanceof SteppedClock s)) return;
    try {
      s.close();
    } catch (IOException e) {
      throw silent(e);
    }
  }

  private BookException silent(IOException e) {
    return new BookException(
        BookException.Cause.OUTSIDE, "the bench at %s does not answer".formatted(bench), e);
  }

  private static void adopt(BookFile file, String id, RunProgress progress) {
    Book read = file.read();
    var changed = new ArrayList<Channel>();
    for (RunChannel c : progress.plan().channels()) {
      read.byId(c.channel())
          .filter(k -> !k.journal().locked())
          .map(k -> RunAdoption.into(k, id, progress))
          .filter(k -> !read.channels().contains(k))
          .ifPresent(changed::add);
    }
    if (!changed.isEmpty()) file.saveAll(changed, "points of run " + progress.plan().title());
  }

  /** What a procedure found, in one revision each; what was taken over, in words. */
  private static List<String> adoptFound(BookFile file, String id, RunProgress progress) {
    Procedure job = progress.plan().procedure();
    String of = progress.plan().channels().getFirst().channel();
    Channel c = file.read().byId(of).orElseThrow();
    var done = new ArrayList<String>();
    for (JobAdoption.Offer o : JobAdoption.offers(job, progress.taken(), Analysis.of(c), id)) {
      file.save(o.change().apply(file.read().byId(of).orElseThrow()), job.title());
      done.add(o.label());
    }
    return done;
  }

  private int say(Answer answer, BookFile file, String id, RunProgress p, String doubted) {
    StoredRun stored =
        file.runs().stream().filter(r -> r.id().equals(id)).findFirst().orElseThrow();
    String state =
        p.phase() == Phase.DONE ? "done" : p.phase() == Phase.STOPPED ? "stopped" : "broken off";
    answer
        .put("state", state)
        .put("run", id)
        .put("readings", stored.sweeps())
        .put("points", RunAnswer.points(p));
    answer.line(
        "%s: %s after %s", p.plan().title(), state, Sentence.count(stored.sweeps(), "sweep"));
    boolean held = !doubted.isEmpty() && !p.over();
    if (held) answer.put("doubt", doubted).line("%s.", doubted);
    if (!p.over()) answer.line(stored.missing());
    if (held) {
      answer.line(
          "Put right what it is and go on with --resume; with --take-doubtful it is taken as it is, marked.");
    }
    if (p.plan().procedure() != null) {
      Channel c = file.read().byId(p.plan().channels().getFirst().channel()).orElseThrow();
      boolean failed = StepsOnLine.record(answer, p, Analysis.of(c));
      if (adopt && p.phase() == Phase.DONE) {
        List<String> taken = adoptFound(file, id, p);
        answer.put("adopted", taken);
        if (taken.isEmpty()) answer.line("nothing of it can be taken over");
        taken.forEach(t -> answer.line("done: %s", t));
      }
      return failed || held || p.phase() == Phase.STOPPED ? NockingCli.FAIL : 0;
    }
    answer.table(RunAnswer.table(p));
    return p.phase() == Phase.STOPPED || held ? NockingCli.FAIL : 0;
  }
}
