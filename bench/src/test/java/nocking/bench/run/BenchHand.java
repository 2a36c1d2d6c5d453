package nocking.bench.run;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.net.Socket;
import java.nio.charset.StandardCharsets;

/** Someone at the knobs of the simulated bench. */
final class BenchHand implements AutoCloseable {
  private final Socket socket;
  private final BufferedReader in;

  BenchHand(String control) throws IOException {
    int colon = control.lastIndexOf(':');
    socket =
        new Socket(control.substring(0, colon), Integer.parseInt(control.substring(colon + 1)));
    in =
        new BufferedReader(
            new InputStreamReader(socket.getInputStream(), StandardCharsets.US_ASCII));
  }

  String say(String command) {
    try {
      socket.getOutputStream().write((command + "\n").getBytes(StandardCharsets.US_ASCII));
      return in.readLine();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @Override
  public void close() throws IOException {
    socket.close();
  }
}
