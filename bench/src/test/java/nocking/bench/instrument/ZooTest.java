package nocking.bench.instrument;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Stream;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.bench.run.Rig;
import nocking.points.RawUnit;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Instrument;
import nocking.run.Instrument.Language;
import nocking.run.RunChannel;
import nocking.run.RunPlan;
import nocking.run.SettleRule;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Instruments of bad manners. Each means 4 V at its first question and 5 V at its second; what is
 * read is that, or nothing with its reason, and never later than an answer may come.
 */
@Execution(ExecutionMode.CONCURRENT)
class ZooTest {
  /** What an animal writes. */
  private interface Manners {
    /**
     * @param question without its end; empty when it is first connected
     * @param n number of the question from 1; 0 when it is first connected
     */
    void answer(String question, int n, Pen out) throws IOException;
  }

  /** Where an animal writes. */
  private static final class Pen {
    private final OutputStream out;

    Pen(OutputStream out) {
      this.out = out;
    }

    Pen write(String text) throws IOException {
      out.write(text.getBytes(StandardCharsets.ISO_8859_1));
      out.flush();
      return this;
    }

    /** The world goes on without it for so long. */
    Pen pause(int milliseconds) {
      LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(milliseconds));
      return this;
    }

    void leave() throws IOException {
      out.close();
    }
  }

  /**
   * @param first what is to come of the first question: a value, or the kind of the failure
   * @param second of the second, over a new connection where the first has failed
   */
  private record Animal(
      String name, Language language, Object first, Object second, Manners manners) {
    @Override
    public String toString() {
      return name;
    }
  }

  private static String volts(int n) {
    return String.valueOf(3 + n);
  }

  private static Animal of(String name, Object first, Object second, Manners m) {
    return new Animal(name, Language.SCPI, first, second, m);
  }

  private static Animal line(String name, Object first, Object second, Manners m) {
    return new Animal(name, Language.LINES, first, second, m);
  }

  /** One that writes the same about its number, whatever is asked. */
  private static Animal says(String name, String format, Object first, Object second) {
    return of(
        name,
        first,
        second,
        (q, n, p) -> {
          if (n > 0) p.write(format.replace("#", volts(n)));
        });
  }

  static Stream<Animal> animals() {
    var all = new ArrayList<Animal>();
    Kind odd = Kind.ODD_ANSWER;
    Kind over = Kind.OVERRANGE;
    Kind none = Kind.NO_ANSWER;
    Kind gone = Kind.DISCONNECTED;
    // How a line ends.
    all.add(says("LF", "#.0\n", 4.0, 5.0));
    all.add(says("CR and LF", "#.0\r\n", 4.0, 5.0));
    all.add(says("CR", "#.0\r", 4.0, 5.0));
    all.add(line("CR of a board", 4.0, 5.0, (q, n, p) -> p.write(n > 0 ? volts(n) + "\r" : "")));
    all.add(
        of(
            "no end at all, the second question is the third",
            5.0,
            6.0,
            (q, n, p) -> p.write(n > 0 ? volts(n) : "")));
    all.add(says("CR in its midst", "#.0\r7\n", odd, odd));
    all.add(says("LF before and behind", "\n#.0\n", odd, odd));
    all.add(says("two empty lines", "\n\n", odd, odd));
    all.add(says("NUL behind the number", "#.0\0\n", odd, odd));
    // How a number is written.
    all.add(says("exponent", "+#.00000000E+00\n", 4.0, 5.0));
    all.add(says("spaces", "   #.0   \n", 4.0, 5.0));
    all.add(says("sign apart", "+ #.0\n", 4.0, 5.0));
    all.add(says("its unit", "#.0 V\n", 4.0, 5.0));
    all.add(says("in millivolts", "#000.0 mV\n", 4.0, 5.0));
    all.add(says("in amperes", "#.0 A\n", odd, odd));
    all.add(says("channel before", "CH1 #.0 V\n", 4.0, 5.0));
    all.add(says("label before", "VOLT=#.0\n", 4.0, 5.0));
    all.add(says("time before", "12:00:01 #.0\n", 4.0, 5.0));
    all.add(says("thousands apart", "#,000.0\n", odd, odd));
    all.add(says("decimal comma", "#,0\n", odd, odd));
    all.add(says("two numbers", "#.0 4.1\n", odd, odd));
    all.add(says("hexadecimal", "0x#p0\n", odd, odd));
    all.add(says("a letter behind", "#f\n", odd, odd));
    all.add(says("less than", "<#.0\n", odd, odd));
    all.add(says("about", "~#.0\n", odd, odd));
    all.add(says("plus minus", "#.0 ± 0.1\n", odd, odd));
    all.add(says("text", "ready\n", odd, odd));
    all.add(says("binary", "\u0001\u00ff#\u0007\n", odd, odd));
    all.add(says("error with a number", "ERR #\n", odd, odd));
    all.add(says("another unit that is none", "#.0 furlongs\n", odd, odd));
    all.add(says("in quotes", "\"#.0\"\n", odd, odd));
    all.add(says("as JSON", "{\"v\":#.0}\n", odd, odd));
    all.add(says("semicolon behind", "#.0;\n", odd, odd));
    all.add(says("channel without a name", "1 #.0\n", odd, odd));
    // Too much.
    all.add(says("9.9E37", "9.9E37\n", over, over));
    all.add(says("-9.9E37", "-9.9E37\n", over, over));
    all.add(says("9.91E37", "+9.91E37\n", over, over));
    all.add(says("OL", "OL\n", over, over));
    all.add(says("ovld", "ovld\n", over, over));
    all.add(says("status OVER", "> #.0 OVER\n", over, over));
    all.add(says("dashes", "-----\n", over, over));
    all.add(says("NaN", "NaN\n", over, over));
    all.add(says("1e400", "#e400\n", over, over));
    // When it answers.
    all.add(of("silent", none, none, (q, n, p) -> {}));
    all.add(
        of(
            "late by a second",
            4.0,
            5.0,
            (q, n, p) -> p.pause(n > 0 ? 1000 : 0).write(n > 0 ? volts(n) + "\n" : "")));
    all.add(
        of(
            "later than an answer may come",
            none,
            none,
            (q, n, p) -> p.pause(n > 0 ? 2500 : 0).write(n > 0 ? volts(n) + "\n" : "")));
    all.add(
        of(
            "torn, the rest in half a second",
            4.25,
            5.25,
            (q, n, p) -> {
              if (n > 0) p.write(volts(n) + ".").pause(500).write("25\n");
            }));
    all.add(
        of(
            "torn, the rest never, the first time",
            odd,
            5.0,
            (q, n, p) -> {
              if (n == 1) p.write("4.");
              else if (n > 1) p.write(volts(n - 1) + "\n");
            }));
    all.add(
        of(
            "drips for ever",
            none,
            none,
            (q, n, p) -> {
              for (int i = 0; n > 0 && i < 8; i++) p.write("4").pause(350);
            }));
    all.add(
        of(
            "answers twice",
            4.0,
            odd,
            (q, n, p) -> p.write(n > 0 ? volts(n) + "\n" + volts(n) + "\n" : "")));
    all.add(
        of(
            "echoes the question",
            odd,
            odd,
            (q, n, p) -> p.write(n > 0 ? q + "\n" + volts(n) + "\n" : "")));
    all.add(of("greets", 4.0, 5.0, (q, n, p) -> p.write(n == 0 ? "Welcome\n" : volts(n) + "\n")));
    all.add(
        of(
            "answers a question late, after the next one was asked",
            none,
            odd,
            (q, n, p) -> {
              if (n > 1) p.write(volts(n - 1) + "\n");
            }));
    all.add(
        of(
            "leaves after its first answer",
            4.0,
            gone,
            (q, n, p) -> {
              if (n == 1) p.write("4\n").leave();
            }));
    all.add(of("leaves at once", gone, gone, (q, n, p) -> p.leave()));
    all.add(
        of(
            "leaves in the midst of its answer",
            gone,
            gone,
            (q, n, p) -> {
              if (n > 0) p.write("4.").leave();
            }));
    // Much.
    all.add(says("two hundred thousand digits", "#".repeat(200_000) + "\n", odd, odd));
    all.add(says("ten thousand spaces and a number", " ".repeat(10_000) + "#\n", odd, odd));
    all.add(
        of(
            "endless",
            odd,
            odd,
            (q, n, p) -> {
              for (int i = 0; n > 0 && i < 200; i++) p.write("7".repeat(5000));
            }));
    // Boards that send by themselves.
    all.add(
        new Animal(
            "sends by itself",
            Language.LINES,
            4.0,
            4.0,
            (q, n, p) -> {
              for (int i = 0; i < 40; i++) p.write("4.0\r\n").pause(100);
            }));
    return all.stream();
  }

  private static void serve(InputStream in, OutputStream out, Manners m, int[] asked)
      throws IOException {
    var pen = new Pen(out);
    m.answer("", 0, pen);
    var line = new StringBuilder();
    for (int c = in.read(); c >= 0; c = in.read()) {
      if (c != '\n' && c != '\r') {
        line.append((char) c);
        continue;
      }
      if (line.isEmpty()) continue;
      String q = line.toString();
      line.setLength(0);
      m.answer(q, ++asked[0], pen);
    }
  }

  /** The first and the second reading as a run takes them. */
  private static List<Object> twice(Instrument i) {
    var read = new ArrayList<>();
    try (var rig = new Rig(plan(i))) {
      for (int n = 0; n < 2; n++) {
        try {
          double v = rig.raw().getFirst();
          read.add(Double.isNaN(v) ? Kind.OVERRANGE : v);
        } catch (InstrumentException e) {
          read.add(e.kind());
        }
      }
    }
    return read;
  }

  private static RunPlan plan(Instrument meter) {
    var channel = new RunChannel("c", "C", RawUnit.VOLTS, meter, new SettleRule.Dwell(1), "");
    return new RunPlan(
        "zoo",
        RunPlan.Kind.POINTS,
        "kPa",
        List.of(channel),
        Instrument.byHand("Gauge", Unit.of("kPa")),
        List.of(Value.of(1)),
        null,
        1,
        1,
        1,
        1,
        60,
        1,
        null,
        null,
        null,
        null,
        null,
        null,
        null);
  }

  @ParameterizedTest
  @MethodSource("animals")
  void neverAWrongValueOverTcp(Animal a) throws Exception {
    int[] asked = {0};
    try (var door = new ServerSocket(0, 4, InetAddress.getLoopbackAddress())) {
      Thread.ofVirtual()
          .start(
              () -> {
                while (!door.isClosed()) {
                  try {
                    Socket s = door.accept();
                    Thread.ofVirtual()
                        .start(
                            () -> {
                              try (s) {
                                serve(s.getInputStream(), s.getOutputStream(), a.manners, asked);
                              } catch (IOException e) {
                                // The guest has left.
                              }
                            });
                  } catch (IOException e) {
                    // The test is over.
                  }
                }
              });
      String ask = a.name.equals("sends by itself") ? "" : "READ?";
      Instrument i =
          Instrument.of("Meter", a.language, "127.0.0.1:" + door.getLocalPort(), ask, Unit.VOLT);
      assertThat(twice(i)).as(a.name).containsExactly(a.first, a.second);
    }
  }

  @TempDir Path folder;

  /** The same over a pair of pseudo-terminals, where the machine can make one. */
  @ParameterizedTest
  @MethodSource("serialAnimals")
  void neverAWrongValueOverASerialLine(Animal a) throws Exception {
    int[] asked = {0};
    try (var pair = SerialPair.in(folder)) {
      Thread.ofPlatform()
          .daemon()
          .start(
              () -> {
                try (var in = Files.newInputStream(pair.far);
                    var out = Files.newOutputStream(pair.far)) {
                  serve(in, out, a.manners, asked);
                } catch (IOException e) {
                  // The pair is gone.
                }
              });
      Instrument i =
          Instrument.of(
              "Meter", a.language, pair.near.toRealPath() + "@115200", "READ?", Unit.VOLT);
      assertThat(twice(i)).as(a.name).containsExactly(a.first, a.second);
    }
  }

  /** What a serial line can have of it: nobody leaves there, and it takes longer to find an end. */
  static Stream<Animal> serialAnimals() {
    List<String> there =
        List.of(
            "LF",
            "CR and LF",
            "CR",
            "its unit",
            "in amperes",
            "two numbers",
            "OL",
            "9.91E37",
            "text",
            "answers twice",
            "torn, the rest in half a second");
    var all = new ArrayList<Animal>();
    for (Language l : List.of(Language.SCPI_SERIAL, Language.SERIAL)) {
      animals()
          .filter(a -> there.contains(a.name))
          .map(a -> new Animal(a.name + ", " + l.title(), l, a.first, second(a, l), a.manners))
          .forEach(all::add);
    }
    Manners wantsCr =
        (q, n, p) -> {
          if (n > 0) p.write(volts(n) + "\r");
        };
    all.add(new Animal("CR alone for a board", Language.SERIAL, 4.0, 5.0, wantsCr));
    return all.stream();
  }

  /**
   * A board's lines that nobody asked for are thrown away; standard commands know no such lines.
   */
  private static Object second(Animal a, Language l) {
    return a.name.equals("answers twice") && l == Language.SERIAL ? 5.0 : a.second;
  }

  /** A line that takes its question only with the end that it wants. */
  @Test
  void theEndThatALineWantsIsFound() throws Exception {
    for (String wanted : List.of("\r\n", "\r")) {
      var line = new Picky(wanted);
      var dialogue = new Dialogue(line, Dialogue.ANY);
      assertThat(dialogue.ask("READ?")).as("not the late answer").isEqualTo("2");
      assertThat(dialogue.ask("READ?")).isEqualTo("3");
      assertThat(line.sent).endsWith("READ?" + wanted, "READ?" + wanted);
    }
  }

  /** Answers how often it was asked as it likes it. */
  private static final class Picky implements Line {
    final List<String> sent = new ArrayList<>();
    private final String wanted;
    private int n;
    private boolean answers;

    Picky(String wanted) {
      this.wanted = wanted;
    }

    @Override
    public String name() {
      return "Board";
    }

    @Override
    public void send(String text) {
      sent.add(text);
      answers = text.endsWith("?" + wanted);
      if (answers) n++;
    }

    @Override
    public String receive() throws InstrumentException {
      if (!answers) throw new InstrumentException(Kind.NO_ANSWER, "Board does not answer in 2 s");
      return String.valueOf(n);
    }

    @Override
    public boolean comes(int milliseconds) {
      return false;
    }

    @Override
    public boolean bare() {
      return false;
    }

    @Override
    public void endsByPause() {}

    @Override
    public String drain() {
      return "";
    }

    @Override
    public void close() {}
  }
}
