package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import nocking.analysis.Analysis;
import nocking.analysis.Jobs;
import nocking.analysis.RunAdoption;
import nocking.analysis.RunDraft;
import nocking.analysis.RunExpectation;
import nocking.bench.run.Rig;
import nocking.bench.run.RunEngine;
import nocking.bench.run.RunEngine.Unattended;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BesideModel;
import nocking.bench.simulated.Scene;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.DocumentException;
import nocking.channel.RunJson;
import nocking.procedure.Procedure;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Act;
import nocking.run.Conditions;
import nocking.run.Corrections;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.RunProgress;
import nocking.run.RunSnapshot;
import nocking.run.Sweep;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * Plans of set points and of every procedure with one field missing, null, of tomorrow or absurd,
 * each in turn, on a running bench: the plan is refused in one sentence before anything is read, or
 * it is carried out.
 */
@Tag("campaign")
class OddPlansTest {
  private static final JsonMapper MAPPER = JsonMapper.builder().build();
  private static final Book BOOK = Hatchery.book(Hatchery.SEED);
  private static final long START = 1_795_000_000_000L;

  /** Sweeps after which a run is broken off: what waits for long may wait. */
  private static final int ENOUGH = 80;

  /** Milliseconds of the bench after which it is. */
  private static final long LATE = 600_000;

  private static final Pattern LEAK =
      Pattern.compile(
          "Exception|[Jj]ackson|[Dd]eserializ|Cannot|`|FAIL_ON|VALUE_|START_|because \"|Creator"
              + "|nocking\\.|null pointer");

  private enum Oddity {
    MISSING,
    NULL,
    TOMORROW,
    EMPTY,
    LIST,
    NEGATIVE,
    NOTHING,
    LARGE
  }

  private record Job(String tag, Procedure procedure) {
    @Override
    public String toString() {
      return tag + (procedure == null ? " set points" : " " + procedure.title());
    }
  }

  static Stream<Job> jobs() {
    var list = new ArrayList<Job>();
    list.add(new Job("BL-P1", null));
    var seen = new ArrayList<Class<?>>();
    for (Channel c : BOOK.channels()) {
      for (Procedure p : Jobs.of(Analysis.of(c))) {
        if (Scene.of(c.tag(), p).isEmpty() || seen.contains(p.getClass())) continue;
        seen.add(p.getClass());
        list.add(new Job(c.tag(), p));
      }
    }
    return list.stream();
  }

  @ParameterizedTest
  @MethodSource("jobs")
  void oneOddFieldIsCarriedOutOrRefused(Job job) {
    Channel channel = BOOK.byTag(job.tag).orElseThrow();
    String sound = RunJson.planFile(plan(job, channel, bench(job)));
    List<List<Object>> paths = OddFields.of(MAPPER.readTree(sound));
    var faults = new ArrayList<String>();
    // What is around a procedure is as around set points.
    if (job.procedure != null) paths.removeIf(p -> !p.contains("procedure"));
    assertThat(paths).hasSizeGreaterThan(job.procedure == null ? 40 : 3);
    for (List<Object> path : paths) {
      for (Oddity oddity : Oddity.values()) {
        String text = with(sound, path, oddity);
        if (text == null) continue;
        String what = path + " " + oddity + ": ";
        try {
          carryOut(RunJson.readPlanFile(text, "p.json"), job, channel);
        } catch (DocumentException | QuantityException e) {
          if (LEAK.matcher(e.getMessage()).find()) faults.add(what + e.getMessage());
          if (e.getMessage().contains("\n")) faults.add(what + "more than one line");
        } catch (RuntimeException e) {
          faults.add(what + e + " at " + e.getStackTrace()[0]);
        }
      }
    }
    assertThat(faults).isEmpty();
  }

  private static BesideModel bench(Job job) {
    Scene scene =
        job.procedure == null
            ? Scene.of(job.tag).orElseThrow()
            : Scene.of(job.tag, job.procedure).orElseThrow();
    return new BesideModel(new BenchModel(scene, 5), START);
  }

  private static RunPlan plan(Job job, Channel c, BesideModel bench) {
    Analysis a = Analysis.of(c);
    Scene scene = Scene.of(c.tag()).orElseThrow();
    RunPlan p =
        RunDraft.plan(
                List.of(a), bench.reference(), List.of(bench.meter(scene.place(c.tag()).orElse(0))))
            .withSetPoints(List.of(Value.of(30)))
            .withConditions(new Conditions("A. Rill", "12 °C", "12 V", "bench 2", "after rain"));
    Unit unit = Unit.of(bench.reference().unit());
    RunPlan certified =
        p.withReference(
                bench
                    .reference()
                    .withAccuracy(Value.of(0.2))
                    .withCorrections(Corrections.parse("0.1=0; 60.2=60", unit)))
            .withBeside(bench.reference().withName("second").withAccuracy(Value.of(0.2)));
    RunPlan whole = job.procedure == null ? certified : Jobs.plan(p, job.procedure, c);
    return RunExpectation.in(whole, id -> Optional.of(a));
  }

  /** What the command does with a plan: what can be refused is refused before a reading. */
  private static void carryOut(RunPlan p, Job job, Channel channel) {
    p.requireUnits();
    Jobs.requireReceiver(p);
    RunAdoption.requireOneQuantity(p, BOOK);
    BesideModel bench = bench(job);
    var progress = new RunProgress(p);
    int[] sweeps = {0};
    RunEngine[] engine = new RunEngine[1];
    var journal =
        new RunJournal() {
          @Override
          public void append(Sweep sweep, Optional<RunPoint> completes) {
            boolean late = bench.now() - START > LATE;
            if (++sweeps[0] > ENOUGH || late) engine[0].breakOff();
          }

          @Override
          public void append(Act act) {
            if (act.kind() == Act.Kind.TROUBLE) engine[0].breakOff();
          }
        };
    Analysis a = Analysis.of(channel);
    engine[0] =
        new RunEngine(progress, journal, new Rig(p, bench::open), bench, s -> hands(s, engine[0]))
            .forbidding(q -> Jobs.forbids(q, a))
            .closing(q -> Jobs.closing(q, a))
            .unattended(Unattended.TAKE);
    engine[0].run();
    assertThat(RunJson.readPlanFile(RunJson.planFile(p), "again")).isEqualTo(p);
    RunAdoption.into(channel, "r", progress);
  }

  private static void hands(RunSnapshot s, RunEngine engine) {
    if (s.hands()) engine.ask(Act.Kind.READY, "");
  }

  private static String with(String sound, List<Object> path, Oddity oddity) {
    JsonNode root = MAPPER.readTree(sound);
    JsonNode parent = OddFields.parent(root, path);
    if (!(parent instanceof ObjectNode o)) return null;
    String name = (String) path.getLast();
    switch (oddity) {
      case MISSING -> o.remove(name);
      case NULL -> o.putNull(name);
      case TOMORROW -> {
        if (o.get(name).isObject()) ((ObjectNode) o.get(name)).put("ofTomorrow", 1);
        else o.put(name, "of tomorrow");
      }
      case EMPTY -> o.put(name, "");
      case LIST -> o.putArray(name).addArray();
      case NEGATIVE -> o.put(name, -1);
      case NOTHING -> o.put(name, 0);
      case LARGE -> o.put(name, 1e300);
    }
    return MAPPER.writeValueAsString(root);
  }
}
