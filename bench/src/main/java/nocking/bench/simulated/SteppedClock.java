package nocking.bench.simulated;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import nocking.bench.run.BenchClock;
import nocking.procedure.Deed;
import nocking.run.TcpAddress;

/**
 * The clock of a simulated bench whose time goes on by command: a wait costs no time, and the same
 * run gives the same readings to the last bit.
 */
public final class SteppedClock implements BenchClock, AutoCloseable {
  private final Socket socket;
  private final ShortLines in;
  private long now;

  /**
   * @param control address of the bench, {@code HOST:PORT}
   * @param start milliseconds since 1970 at which this clock begins
   * @throws nocking.quantity.QuantityException for what is no address
   */
  public SteppedClock(String control, long start) throws IOException {
    TcpAddress address = TcpAddress.of(control);
    socket = new Socket(address.host(), address.port());
    socket.setTcpNoDelay(true);
    in = new ShortLines(socket.getInputStream());
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
    return in.next() != null;
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
