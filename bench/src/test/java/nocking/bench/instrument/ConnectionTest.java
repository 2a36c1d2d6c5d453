package nocking.bench.instrument;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.UnaryOperator;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.bench.simulated.SteppedClock;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.run.Instrument;
import nocking.run.Instrument.Language;
import nocking.run.TcpAddress;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Instruments that do what they should, and those that do not. */
class ConnectionTest {
  @TempDir Path folder;
  private ServerSocket door;

  /** Something on loopback that answers each line; null drops the connection. */
  private Instrument answering(UnaryOperator<String> answer) throws IOException {
    door = new ServerSocket(0, 4, InetAddress.getLoopbackAddress());
    Thread.ofVirtual()
        .start(
            () -> {
              try {
                while (true) {
                  Socket s = door.accept();
                  Thread.ofVirtual().start(() -> serve(s, answer));
                }
              } catch (IOException e) {
                // The test is over.
              }
            });
    return Instrument.of(
        "Meter", Language.SCPI, "127.0.0.1:" + door.getLocalPort(), "READ?", Unit.VOLT);
  }

  private static void serve(Socket s, UnaryOperator<String> answer) {
    try (s;
        var in =
            new BufferedReader(
                new InputStreamReader(s.getInputStream(), StandardCharsets.US_ASCII))) {
      for (String l = in.readLine(); l != null; l = in.readLine()) {
        String a = answer.apply(l);
        if (a == null) return;
        s.getOutputStream().write(a.getBytes(StandardCharsets.US_ASCII));
      }
    } catch (IOException e) {
      // The guest has left.
    }
  }

  @AfterEach
  void close() throws IOException {
    if (door != null) door.close();
  }

  private static InstrumentException failing(Instrument i) {
    return catchThrowableOfType(
        InstrumentException.class,
        () -> {
          try (Reference r = Connection.open(i)) {
            r.read();
          }
        });
  }

  /** Numbers as instruments write them (IEEE 488.2, NR1 to NR3), with either end of line. */
  @ParameterizedTest
  @CsvSource({
    "+1.23456789E+00, 1.23456789",
    "-4, -4",
    "0.5, 0.5",
    "'  7.25  ', 7.25",
    "1E-3, 0.001"
  })
  void aNumberIsRead(String answer, double value) throws Exception {
    try (Reference r = Connection.open(answering(q -> answer + "\r\n"))) {
      assertThat(r.read()).isEqualTo(value);
    }
  }

  /** A meter that answers twice gives no reading of one question at the next. */
  @Test
  void aReplyBelongsToItsQuestion() throws Exception {
    var asked = new AtomicInteger();
    Instrument twice = answering(l -> asked.incrementAndGet() + "\n" + asked.get() + "\n");
    try (Reference r = Connection.open(twice)) {
      assertThat(r.read()).isEqualTo(1);
      assertThat(catchThrowableOfType(InstrumentException.class, r::read))
          .hasMessage("Meter sent '1' without being asked")
          .matches(InstrumentException::breaks);
    }
  }

  /** One who greets whoever comes is understood all the same. */
  @Test
  void aGreetingIsNoReply() throws Exception {
    door = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
    var greeted = new CountDownLatch(1);
    Thread.ofVirtual()
        .start(
            () -> {
              try (Socket s = door.accept();
                  var in = new BufferedReader(new InputStreamReader(s.getInputStream()))) {
                s.getOutputStream().write("Welcome\n".getBytes(StandardCharsets.US_ASCII));
                greeted.countDown();
                while (in.readLine() != null) {
                  s.getOutputStream().write("4.5\n".getBytes(StandardCharsets.US_ASCII));
                }
              } catch (IOException e) {
                // The test is over.
              }
            });
    Instrument i =
        Instrument.of(
            "Meter", Language.SCPI, "127.0.0.1:" + door.getLocalPort(), "READ?", Unit.VOLT);
    try (Reference r = Connection.open(i)) {
      greeted.await();
      assertThat(r.read()).isEqualTo(4.5);
      assertThat(r.read()).isEqualTo(4.5);
    }
  }

  /** Each letter comes in time, the answer never. */
  @Test
  void aDripHasNoMoreTimeThanAnAnswer() throws Exception {
    door = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
    Thread.ofVirtual()
        .start(
            () -> {
              try (Socket s = door.accept()) {
                while (true) {
                  s.getOutputStream().write('1');
                  new CountDownLatch(1).await(300, TimeUnit.MILLISECONDS);
                }
              } catch (IOException | InterruptedException e) {
                // Nobody listens any more.
              }
            });
    Instrument i =
        Instrument.of(
            "Meter", Language.SCPI, "127.0.0.1:" + door.getLocalPort(), "READ?", Unit.VOLT);
    assertThat(failing(i)).hasMessage("Meter does not answer in 2 s");
  }

  /** A pattern that takes for ever elsewhere takes its line's length here. */
  @Test
  void aPatternTakesNoLongerThanItsLine() throws Exception {
    Instrument i =
        answering(q -> "a".repeat(4000) + "\n")
            .withLanguage(Language.LINES)
            .withPattern("(a+)+$b")
            .withAsk("?");
    assertThat(failing(i)).hasMessageContaining("what fits (a+)+$b");
  }

  /** Whoever sends for ever fills nothing. */
  @Test
  void aReplyWithoutAnEndIsGivenUp() throws Exception {
    String endless = "9".repeat(1 << 20);
    Instrument meter = answering(l -> endless);
    try (Reference r = Connection.open(meter)) {
      assertThat(catchThrowableOfType(InstrumentException.class, r::read))
          .hasMessageContaining("sends without an end of line");
    }
    try (var clock = new SteppedClock(meter.address(), 0)) {
      assertThatThrownBy(() -> clock.pause(10)).isInstanceOf(InterruptedException.class);
    }
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "127.0.0.1:",
        ":5025",
        "127.0.0.1",
        "",
        "host:0",
        "host:65536",
        "host:-1",
        "host:5e3",
        "a b:1"
      })
  void whatIsNoAddressIsRefused(String address) {
    assertThatThrownBy(() -> TcpAddress.of(address))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("is no address; expected HOST:PORT");
  }

  @Test
  void addressesOfBothKindsAreRead() {
    assertThat(TcpAddress.of("127.0.0.1:5025")).isEqualTo(new TcpAddress("127.0.0.1", 5025));
    assertThat(TcpAddress.of("[::1]:65535")).isEqualTo(new TcpAddress("[::1]", 65535));
  }

  @Test
  void whoItIsIsAsked() throws Exception {
    Instrument i = answering(q -> q.equals("*IDN?") ? "Millrace,M-2,7,1.0\n" : "3.5\n");
    try (Reference r = Connection.open(i)) {
      assertThat(r.identity()).isEqualTo("Millrace,M-2,7,1.0");
      assertThat(r.read()).isEqualTo(3.5);
    }
  }

  @Test
  void whatFailedIsSaid() throws Exception {
    Instrument garbled = answering(q -> "#?~\n");
    assertThat(failing(garbled).kind()).isEqualTo(Kind.ODD_ANSWER);
    assertThat(failing(garbled))
        .hasMessage("Meter answered '#?~', expected a number alone or with its unit");
    close();
    Instrument over = answering(q -> "9.9E37\n");
    assertThat(failing(over).kind()).isEqualTo(Kind.OVERRANGE);
    assertThat(failing(over).breaks()).isFalse();
    close();
    Instrument drops = answering(q -> null);
    assertThat(failing(drops)).hasMessage("Meter has dropped the connection");
    close();
    Instrument endless = answering(q -> "7".repeat(10_000));
    assertThat(failing(endless)).hasMessage("Meter sends without an end of line");
    close();
    Instrument silent = answering(q -> "");
    assertThat(failing(silent)).hasMessage("Meter does not answer in 2 s");
    close();
    int nobody;
    try (var s = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      nobody = s.getLocalPort();
    }
    assertThat(failing(silent.withAddress("127.0.0.1:" + nobody)))
        .hasMessageContaining("refuses the connection")
        .returns(Kind.REFUSED, InstrumentException::kind);
    assertThat(failing(silent.withAddress("here"))).hasMessageContaining("expected HOST:PORT");
    assertThat(failing(silent.withAddress("127.0.0.1:99999")).kind()).isEqualTo(Kind.REFUSED);
    Instrument board = silent.withLanguage(Language.SERIAL).withAddress("/dev/no-such-line@9600");
    assertThat(failing(board).kind()).isEqualTo(Kind.REFUSED);
    assertThat(failing(board.withAddress("/dev/null@fast"))).hasMessageContaining("DEVICE@BAUD");
  }

  /** Its error queue says why a set point is not taken. */
  @Test
  void aRefusedSetPointIsSaid() throws Exception {
    Instrument i =
        answering(q -> q.equals("SYST:ERR?") ? "-222,\"Data out of range\"\n" : "")
            .withSet("SOUR %s");
    try (Reference r = Connection.open(i)) {
      assertThatThrownBy(() -> r.bringTo(900))
          .hasMessage("Meter does not take the set point: -222,\"Data out of range\"");
    }
  }

  /** The number is where the pattern says, in lines that hold other numbers too. */
  @ParameterizedTest
  @CsvSource({
    "'', 't=12', 12",
    "'ch0 (\\d+)', 't=12 ch0 1893', 1893",
    "'([-\\d.]+) V', '21.5 C -0.125 V', -0.125"
  })
  void aFieldOfALineIsRead(String pattern, String line, double value) throws Exception {
    Instrument i =
        answering(q -> line + "\n").withLanguage(Language.LINES).withPattern(pattern).withAsk("?");
    try (Reference r = Connection.open(i)) {
      assertThat(r.read()).isEqualTo(value);
    }
  }

  @Test
  void aLineWithoutTheFieldIsNoReading() throws Exception {
    Instrument i = answering(q -> "booting…\n").withLanguage(Language.LINES).withAsk("?");
    assertThat(failing(i)).hasMessageContaining("else a pattern that picks it out");
    assertThat(failing(i.withPattern("ch0 (\\d+)"))).hasMessageContaining("what fits ch0 (\\d+)");
    assertThat(failing(i.withPattern("("))).hasMessageContaining("is no pattern");
  }

  /** A pair of pseudo-terminals, where the machine can make one. */
  @Test
  void aSerialLineIsReadAsARealOne() throws Exception {
    try (var pair = SerialPair.in(folder)) {
      Instrument board =
          Instrument.of(
                  "Board", Language.SERIAL, pair.near.toRealPath() + "@115200", "?", Unit.COUNTS)
              .withPattern("adc (\\d+)");
      Thread.ofVirtual()
          .start(
              () -> {
                try (var in = Files.newBufferedReader(pair.far);
                    var out = Files.newOutputStream(pair.far)) {
                  for (String l = in.readLine(); l != null; l = in.readLine()) {
                    out.write("adc 2047\r\n".getBytes(StandardCharsets.US_ASCII));
                    out.flush();
                  }
                } catch (IOException e) {
                  // The pair is gone.
                }
              });
      try (Reference r = Connection.open(board)) {
        assertThat(r.read()).isEqualTo(2047);
        assertThat(r.read()).isEqualTo(2047);
      }
    }
  }
}
