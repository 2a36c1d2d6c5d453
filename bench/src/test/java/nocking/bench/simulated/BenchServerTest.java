package nocking.bench.simulated;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import nocking.run.TcpAddress;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** A simulated bench under the hands of those who do not know it. */
class BenchServerTest {
  private BenchServer server;

  @BeforeEach
  void open() throws IOException {
    server = new BenchServer(new BenchModel(Scene.named("bath").orElseThrow(), 1), 0);
  }

  @AfterEach
  void close() {
    server.close();
  }

  private static String said(String address, String line) throws IOException {
    TcpAddress at = TcpAddress.of(address);
    try (var s = new Socket(at.host(), at.port());
        var in =
            new BufferedReader(
                new InputStreamReader(s.getInputStream(), StandardCharsets.US_ASCII))) {
      s.getOutputStream().write((line + "\n").getBytes(StandardCharsets.US_ASCII));
      return in.readLine();
    }
  }

  /** A time that is no number would stand still for ever; one without an end goes by for ever. */
  @ParameterizedTest
  @ValueSource(strings = {"NaN", "-1", "Infinity", "1e12", "x", ""})
  void aStepThatIsNoTimeIsRefused(String step) throws IOException {
    assertThat(said(server.control(), "SIM:STEP " + step)).startsWith("not understood");
    assertThat(said(server.control(), "SIM:STEP 0.5")).isEqualTo("OK");
    assertThat(said(server.control(), "SIM:TIME?")).startsWith("0.5");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {"SIM:DEPTH 1 NaN", "SIM:DEPTH 1 Infinity", "SIM:DEPTH 9 1", "SIM:DO \u0007"})
  void whatIsNoPlaceIsRefused(String line) throws IOException {
    assertThat(said(server.control(), line)).startsWith("not understood").doesNotContain("\u0007");
  }

  @Test
  void aSetPointThatIsNoNumberIsRefused() throws IOException {
    TcpAddress at = TcpAddress.of(server.address(0));
    try (var s = new Socket(at.host(), at.port());
        var in =
            new BufferedReader(
                new InputStreamReader(s.getInputStream(), StandardCharsets.US_ASCII))) {
      s.getOutputStream().write("SOUR NaN\nSYST:ERR?\n".getBytes(StandardCharsets.US_ASCII));
      assertThat(in.readLine()).startsWith("-222");
    }
  }

  /**
   * Any client finds what the standard makes mandatory (IEEE 488.2-1992, 10.1; SCPI-1999, 21.21).
   */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "*OPC? | 1",
        "*ESE?;*ESR?;*SRE?;*STB?;*TST? | 0;0;0;0;0",
        "*CLS;*RST;*WAI;*ESE 0;*SRE 0;*OPC;SYST:ERR? | 0,\"No error\"",
        "NONSENSE;SYSTEM:ERROR:NEXT? | -113,\"Undefined header\"",
        "SYST:VERS? | 1999.0",
        "SOUR 12;:SOUR? | +1.20000000E+01"
      })
  void whatIsMandatoryIsUnderstood(String message, String answer) throws IOException {
    assertThat(said(server.address(0), message)).isEqualTo(answer);
  }

  @Test
  void aReadingIsFetchedAndTakenAlike() throws IOException {
    String both = said(server.address(1), "READ?;FETC?");
    assertThat(both.split(";")).hasSize(2);
    assertThat(both.split(";")[0]).isEqualTo(both.split(";")[1]);
  }

  @Test
  void aQuestionWithoutAnEndEndsTheConnection() throws IOException {
    assertThat(said(server.address(1), "x".repeat(1 << 16))).isNull();
    assertThat(said(server.address(1), "READ?")).isNotNull();
  }
}
