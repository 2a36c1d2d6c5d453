package nocking.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nocking.book.exchange.ColumnFile;
import nocking.book.exchange.StockCsv;
import nocking.channel.Channel;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.parts.Assortment;
import nocking.parts.BlendDesign;
import nocking.parts.Candidates;
import nocking.parts.Combination;
import nocking.parts.DividerDesign;
import nocking.parts.EndResistorDesign;
import nocking.parts.ExtenderDesign;
import nocking.parts.GainShift;
import nocking.parts.PartLimit;
import nocking.parts.PreferredSeries;
import nocking.parts.PullUpDesign;
import nocking.parts.Solution;
import nocking.parts.StringDesign;
import nocking.path.SensorCurve;
import nocking.proposal.PathProposal;
import nocking.proposal.PathProposals;
import nocking.proposal.Wanted;
import nocking.quantity.Ends;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Chooses parts. */
@Command(
    name = "design",
    description = {
      "Choose parts:",
      "  nocking design divider --in 5V --out 3.3V --total 10k..50k --series E24",
      "  nocking design divider --in 5V --out 3.3V --stock DRAWER.csv --parts 3",
      "  nocking design combination --value 4k321 --series E12 --parts 3",
      "  nocking design extender --fits 30V --highest 50V --total 15.1k --series E96",
      "  nocking design gain-shift --in 0.2V..0.6V --out 0.3V..3V --ref 3.3V --series E96",
      "  nocking design pull-up ntc-beta r0=10k beta=3950 --range 0..25 --supply 3.3V",
      "  nocking design ends --track 5k --supply 5V --wiper 2%%..98%% --inside 0.5V..4.5V --series E24",
      "  nocking design blend --swing 40%% --rest 2.5V --supply 5V --source 1k --receiver 1M",
      "  nocking design path CHANNEL.json --supply 5V --settling 10ms --by faults --series E24",
      "  nocking design string --value 1M --volts 325V --watts 0.25 --working 250V"
    })
final class DesignCommand extends JsonOption {
  @Parameters(
      index = "0",
      paramLabel = "WHAT",
      description =
          "divider, combination, extender, gain-shift, pull-up, ends, blend, path or string.")
  String what;

  @Parameters(
      index = "1..*",
      paramLabel = "SENSOR",
      description = "For pull-up: a sensor model and its key=value pairs; for path: CHANNEL.json.")
  List<String> sensor = List.of();

  @Option(names = "--in", paramLabel = "V", description = "Input, or A..B for gain-shift.")
  String in;

  @Option(names = "--out", paramLabel = "V", description = "Output, or C..D for gain-shift.")
  String out;

  @Option(
      names = "--total",
      paramLabel = "LO..HI",
      description = "R1 + R2; one value for extender.")
  String total;

  @Option(names = "--series", paramLabel = "E24", description = "Preferred series.")
  String series = "E24";

  @Option(names = "--tolerance", paramLabel = "T", description = "Of the series' parts.")
  String tolerance;

  @Option(names = "--parts", paramLabel = "N", description = "Most single resistors, 1 to 6.")
  String parts;

  @Option(
      names = "--stock",
      paramLabel = "FILE",
      description = "The drawer, in the place of a series.")
  Path stock;

  @Option(names = "--ref", paramLabel = "V", description = "Reference for gain-shift.")
  String reference;

  @Option(names = "--rails", paramLabel = "LO..HI", description = "Rails of the amplifier.")
  String rails = "0V..3.3V";

  @Option(names = "--value", paramLabel = "R", description = "Resistance wanted.")
  String value;

  @Option(names = "--volts", paramLabel = "V", description = "Across the string, peak or direct.")
  String volts;

  @Option(names = "--watts", paramLabel = "W", description = "Rated power of one part.")
  String watts;

  @Option(names = "--working", paramLabel = "V", description = "Rated working voltage of one part.")
  String working;

  @Option(
      names = "--derating",
      paramLabel = "60%",
      description = "Share of the ratings that is used.")
  String derating = "60%";

  @Option(
      names = "--track",
      paramLabel = "R",
      description = "Track of the potentiometer; for blend the tracks at hand, with commas.")
  String track;

  @Option(
      names = "--track-tolerance",
      paramLabel = "20%",
      description = "What the track is made to.")
  String trackTolerance = "20%";

  @Option(
      names = "--wiper",
      paramLabel = "A..B",
      description = "Where the wiper runs, 0 to 1 or in percent.")
  String wiper = "0..1";

  @Option(
      names = "--inside",
      paramLabel = "LO..HI",
      description = "Volts in which every true reading shall lie.")
  String inside;

  @Option(names = "--swing", paramLabel = "40%", description = "What shall be left of a swing.")
  String swing;

  @Option(
      names = "--rest",
      paramLabel = "V",
      description = "Sensor at rest, or SENSOR..OUTPUT where the output shall rest elsewhere.")
  String rest;

  @Option(names = "--source", paramLabel = "R", description = "Source resistance of the sensor.")
  String source = "0";

  @Option(names = "--receiver", paramLabel = "R", description = "Input resistance behind it.")
  String receiver;

  @Option(
      names = "--settling",
      paramLabel = "S",
      description = "For path: seconds after which a step is within half a count.")
  String settling;

  @Option(
      names = "--most-current",
      paramLabel = "A",
      description = "For path: what a resistive sensor may carry.")
  String mostCurrent;

  @Option(
      names = "--by",
      paramLabel = "CARE",
      description =
          "For path, what comes first: balanced, after, before, share, faults, parts, current.")
  String by = "balanced";

  @Option(names = "--highest", paramLabel = "V", description = "Voltage that shall fit.")
  String highest;

  @Option(names = "--fits", paramLabel = "V", description = "Voltage that fits now.")
  String fits;

  @Option(names = "--range", paramLabel = "LO..HI", description = "Range of the quantity.")
  String range;

  @Option(
      names = "--supply",
      paramLabel = "V",
      description = "Supply of the pull-up or the potentiometer.")
  String supply = "3.3V";

  @Override
  int run(Answer answer) {
    if (what.equals("path")) return path(answer);
    if (!what.equals("pull-up") && !sensor.isEmpty()) {
      throw new QuantityException("design %s takes no '%s'".formatted(what, sensor.getFirst()));
    }
    if (what.equals("blend")) return blend(answer);
    Candidates candidates =
        switch (what) {
          case "divider" -> divider();
          case "combination" -> Combination.search(assortment(), ohms("--value", value), most(3));
          case "extender" -> extender();
          case "gain-shift" -> GainShift.search(assortment(), gainShift());
          case "string" -> string();
          case "pull-up" -> pullUp();
          case "ends" -> ends(answer);
          default ->
              throw new QuantityException(
                  "'%s' is no design; known are divider, combination, extender, gain-shift, pull-up, ends, blend, path, string"
                      .formatted(what));
        };
    String instead =
        candidates.found()
            ? ""
            : switch (what) {
              case "divider" -> DividerDesign.instead(assortment(), dividerGoal(), most(2));
              case "extender" ->
                  ExtenderDesign.instead(
                      assortment(),
                      highest(),
                      fits(),
                      ohms("--total", total),
                      partLimit(),
                      most(2));
              default -> "";
            };
    return SolutionAnswer.give(answer, candidates, instead) ? 0 : NockingCli.FAIL;
  }

  private int most(int otherwise) {
    if (parts == null) return otherwise;
    // 2..6 means up to six.
    String last = parts.substring(parts.lastIndexOf('.') + 1).strip();
    if (!last.matches("\\d{1,3}")) {
      throw new QuantityException(
          "read --parts %s, expected a number from 1 to 6".formatted(parts));
    }
    return Integer.parseInt(last);
  }

  private Assortment assortment() {
    if (stock != null) return Assortment.of(StockCsv.read(ColumnFile.read(stock)));
    PreferredSeries s = PreferredSeries.of(series);
    double t =
        tolerance == null ? s.usualTolerance() : read("--tolerance", tolerance, Unit.PERCENT);
    return Assortment.of(s, 10, 10e6, t);
  }

  /** What one part may bear: watts, and the working voltage less its derating. */
  private PartLimit partLimit() {
    double power = watts == null ? Double.POSITIVE_INFINITY : read("--watts", watts, Unit.of("W"));
    double volts =
        working == null
            ? Double.POSITIVE_INFINITY
            : voltage("--working", working) * read("--derating", derating, Unit.PERCENT) / 100;
    return new PartLimit(power, volts);
  }

  private double highest() {
    return voltage("--highest", highest);
  }

  private double fits() {
    return voltage("--fits", fits);
  }

  private Candidates extender() {
    return ExtenderDesign.search(
        assortment(), highest(), fits(), ohms("--total", total), partLimit(), most(2));
  }

  private DividerDesign.Goal dividerGoal() {
    return new DividerDesign.Goal(
        voltage("--in", in),
        voltage("--out", out),
        window(total),
        partLimit(),
        Double.POSITIVE_INFINITY);
  }

  private Candidates divider() {
    return DividerDesign.search(assortment(), dividerGoal(), most(2));
  }

  private GainShift.Goal gainShift() {
    double[] from = pair("--in", in, Unit.VOLT);
    double[] to = pair("--out", out, Unit.VOLT);
    return new GainShift.Goal(
        from[0],
        from[1],
        to[0],
        to[1],
        voltage("--ref", reference),
        rising("--rails", rails, Unit.VOLT));
  }

  private Candidates string() {
    return StringDesign.search(
        assortment(),
        ohms("--value", value),
        voltage("--volts", volts),
        read("--watts", watts, Unit.of("W")),
        voltage("--working", working),
        read("--derating", derating, Unit.PERCENT) / 100);
  }

  private Candidates pullUp() {
    if (sensor.isEmpty()) {
      throw new QuantityException("design pull-up needs a sensor, such as ntc-beta beta=3950");
    }
    var arguments = new SensorArguments(sensor.getFirst(), sensor.subList(1, sensor.size()), null);
    SensorCurve curve =
        SensorCurve.of(new Measurand("x", arguments.quantity()), arguments.sensor());
    if (!curve.outputUnit().equals(Signal.RESISTANCE.unit())) {
      throw new QuantityException("a pull-up needs a sensor that is a resistance");
    }
    Span over = rising("--range", range, arguments.quantity());
    curve.output(over.low());
    curve.output(over.high());
    List<PullUpDesign.Choice> choices =
        PullUpDesign.choices(assortment(), curve::at, over, voltage("--supply", supply));
    var solutions = new ArrayList<Solution>();
    for (PullUpDesign.Choice c : choices) {
      Solution s = c.solution();
      solutions.add(
          new Solution(
              s.parts(),
              s.value(),
              s.error(),
              s.worstCase(),
              s.watts(),
              "%s, straight within ±%s %s"
                  .formatted(
                      c.rule(), Numbers.significant(c.error(), 2), arguments.quantity().symbol()),
              s.stages()));
    }
    return new Candidates(solutions, true);
  }

  private Candidates ends(Answer answer) {
    var goal =
        new EndResistorDesign.Goal(
            voltage("--supply", supply),
            ohms("--track", track),
            read("--track-tolerance", trackTolerance, Unit.PERCENT) / 100,
            rising("--wiper", wiper, Unit.ONE),
            rising("--inside", inside, Unit.VOLT));
    double[] ideal = goal.ideal();
    answer.put("ideal", Answer.object("top", ideal[0], "bottom", ideal[1]));
    answer.line(
        "With parts that are exact: Rt %s, Rb %s; below 0 Ω none is needed there.",
        Numbers.compact(ideal[0], "Ω", 4), Numbers.compact(ideal[1], "Ω", 4));
    return EndResistorDesign.search(assortment(), goal);
  }

  private int path(Answer answer) {
    if (sensor.size() != 1) throw new QuantityException("design path needs one CHANNEL.json");
    Channel channel = ChannelFiles.channel(Path.of(sensor.getFirst()));
    var wanted =
        new Wanted(
            assortment(),
            voltage("--supply", supply),
            total == null ? Wanted.usualTotal(care()) : window(total),
            settling == null ? Double.NaN : read("--settling", settling, Unit.of("s")),
            mostCurrent == null
                ? Wanted.USUAL_CURRENT
                : read("--most-current", mostCurrent, Unit.AMPERE),
            care());
    List<PathProposal> found = PathProposals.of(channel, wanted);
    return ProposalAnswer.give(answer, channel, found) ? 0 : NockingCli.FAIL;
  }

  private Wanted.Care care() {
    for (Wanted.Care c : Wanted.Care.values()) {
      if (c.name().equalsIgnoreCase(by)) return c;
    }
    throw new QuantityException(
        "--by takes balanced, after, before, share, faults, parts or current; read " + by);
  }

  private int blend(Answer answer) {
    double[] at =
        rest != null && !Ends.in(rest)
            ? new double[] {voltage("--rest", rest), voltage("--rest", rest)}
            : pair("--rest", rest, Unit.VOLT);
    var goal =
        new BlendDesign.Goal(
            read("--swing", swing, Unit.ONE),
            at[0],
            at[1],
            voltage("--supply", supply),
            ohms("--source", source),
            receiver == null ? Double.POSITIVE_INFINITY : ohms("--receiver", receiver));
    List<Double> tracks =
        track == null
            ? BlendDesign.USUAL
            : Arrays.stream(track.split(",")).map(t -> ohms("--track", t.strip())).toList();
    List<BlendDesign.Blend> found = BlendDesign.search(goal, tracks);
    return BlendAnswer.give(answer, goal, found) ? 0 : NockingCli.FAIL;
  }

  private static double voltage(String option, String text) {
    return read(option, text, Unit.VOLT);
  }

  private static double ohms(String option, String text) {
    return read(option, text, Unit.OHM);
  }

  private static double read(String option, String text, Unit unit) {
    if (text == null) throw new QuantityException(option + " is missing");
    try {
      return QuantityParser.value(text, unit);
    } catch (QuantityException e) {
      throw new QuantityException(option + ": " + e.getMessage());
    }
  }

  private static double[] pair(String option, String text, Unit unit) {
    if (text == null) throw new QuantityException(option + " is missing");
    try {
      Ends ends = Ends.typed(text, unit);
      return new double[] {ends.from().number(), ends.to().number()};
    } catch (QuantityException e) {
      throw new QuantityException(option + ": " + e.getMessage());
    }
  }

  private static Span rising(String option, String text, Unit unit) {
    double[] p = pair(option, text, unit);
    return new Span(p[0], p[1]);
  }

  /** The total of a divider, of which one end may be left open. */
  private static Span window(String text) {
    if (text == null) return new Span(1e3, 100e3);
    try {
      return Ends.typed(text, Unit.OHM, new Span(0, Double.POSITIVE_INFINITY));
    } catch (QuantityException e) {
      throw new QuantityException("--total: " + e.getMessage());
    }
  }
}
