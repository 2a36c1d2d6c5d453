package nocking.bench.simulated;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import nocking.bench.run.BenchClock;
import nocking.procedure.Deed;

/**
 * The clock of a simulated bench whose time goes on by command: a wait costs no time, and the same
 * run gives the same readings to the last bit.
 */
public final class SteppedClock implements BenchClock, AutoCloseable {
  private final Socket socket;
  private final BufferedReader in;
  private long now;

  /**
   * @param control address of the bench, {@code HOST:PORT}
   * @param start milliseconds since 1970 at which this clock begins
   */
  public SteppedClock(String control, long start) throws IOException {
    int colon = control.lastIndexOf(':');
    socket =
        new Socket(control.substring(0, colon), Integer.parseInt(control.substring(colon + 1)));
    socket.setTcpNoDelay(true);
    in =
        new BufferedReader(
            new InputStreamReader(socket.getInputStream(), StandardCharsets.US_ASCII));
    now = start;
  }

  @Override
  public synchronized long now() {
    return now;
  }

  @Override
  public boolean atOnce() {
    return true;
  }

  /** Has the bench do what hands do in a step. */
  public synchronized void doIt(Deed deed) {
    if (deed == Deed.NONE) return;
    try {
      tell("SIM:DO " + deed);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** True when it was heard. */
  private boolean tell(String command) throws IOException {
    socket.getOutputStream().write((command + "\n").getBytes(StandardCharsets.US_ASCII));
    return in.readLine() != null;
  }

  @Override
  public synchronized void pause(long milliseconds) throws InterruptedException {
    try {
      boolean heard = tell(String.format(Locale.ROOT, "SIM:STEP %.3f", milliseconds * 1e-3));
      if (!heard) throw new InterruptedException("the bench has gone");
    } catch (IOException e) {
      var gone = new InterruptedException("the bench has gone");
      gone.initCause(e);
      throw gone;
    }
    now += milliseconds;
    if (Thread.interrupted()) throw new InterruptedException();
  }

  @Override
  public void close() throws IOException {
    socket.close();
  }
}
