package nocking.bench.simulated;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;
import nocking.points.RawUnit;
import nocking.procedure.Deed;
import nocking.quantity.Sentence;
import nocking.run.Instrument;

/**
 * A bench model that is asked over TCP, on loopback only: one port for each instrument, and one for
 * the bench itself, where time is let go by and faults are made ({@code SIM:STEP 1.0}, {@code
 * SIM:FAULT 1 FROZEN}, {@code SIM:DEPTH 1 40}, {@code SIM:DO TIGHTEN}, {@code SIM:MOVE 1}, {@code
 * SIM:TIME?}).
 */
public final class BenchServer implements AutoCloseable {
  /** Seconds that one command lets go by at most: a day. */
  private static final double LONGEST_STEP = 86_400;

  /** Millimetres that a probe may be off its depth. */
  private static final double FARTHEST = 1e6;

  /** SCPI-1999, volume 2, MEASure:RESistance? and MEASure:CURRent?. */
  private static final Pattern OWN =
      Pattern.compile(
          "MEAS(?:URE)?(?::SCAL(?:AR)?)?:(?:F?RES(?:ISTANCE)?|CURR(?:ENT)?(?::DC)?)\\?");

  private final BenchModel model;
  private final double speed;
  private final List<Port> ports = new ArrayList<>();
  private final Port control;
  private final Thread pace;
  private volatile boolean closed;

  /** An instrument's door. */
  private final class Port {
    final int index;
    volatile ServerSocket door;
    final Set<Socket> guests = ConcurrentHashMap.newKeySet();
    private String error = "";
    private String last = "";

    Port(int index) throws IOException {
      this.index = index;
      open();
    }

    void open() throws IOException {
      var socket = new ServerSocket(0, 8, InetAddress.getLoopbackAddress());
      door = socket;
      Thread.ofVirtual().start(() -> accept(socket));
    }

    private void accept(ServerSocket socket) {
      while (!socket.isClosed()) {
        try {
          Socket guest = socket.accept();
          guest.setTcpNoDelay(true);
          guests.add(guest);
          Thread.ofVirtual().start(() -> serve(guest));
        } catch (IOException e) {
          // The door was closed.
          return;
        }
      }
    }

    private void serve(Socket guest) {
      try (guest) {
        var in = new ShortLines(guest.getInputStream());
        for (String line = in.next(); line != null; line = in.next()) {
          String answer = index < 0 ? command(line.strip()) : message(line.strip());
          if (answer == null) return;
          if (!answer.isEmpty()) {
            guest.getOutputStream().write((answer + "\n").getBytes(StandardCharsets.US_ASCII));
          }
        }
      } catch (IOException e) {
        // The guest has left.
      } finally {
        guests.remove(guest);
      }
    }

    /** Several in one message are answered in one (IEEE 488.2-1992, 6.3 and 8.3). */
    private String message(String line) {
      var answers = new ArrayList<String>();
      for (String unit : line.split(";")) {
        String answer = answer(unit.strip().replaceFirst("^:", ""));
        if (answer == null) return null;
        if (!answer.isEmpty()) answers.add(answer);
      }
      return String.join(";", answers);
    }

    /** Null drops the connection; empty says nothing. */
    private String answer(String line) {
      switch (model.fault(index)) {
        case DROPPED -> {
          return null;
        }
        case SILENT -> {
          return "";
        }
        case GARBAGE -> {
          return "#\u0001?garbled ~~";
        }
        case OVERRANGE -> {
          if (line.endsWith("?") && !line.startsWith("*")) return "9.9E37";
        }
        default -> {}
      }
      String upper = line.toUpperCase(Locale.ROOT);
      if (upper.equals("*IDN?")) return identity();
      if (upper.matches("SYST(?:EM)?:ERR(?:OR)?(?::NEXT)?\\?")) return error();
      if (upper.matches("SYST(?:EM)?:VERS(?:ION)?\\?")) return "1999.0";
      if (upper.matches("SOUR(?:CE)?\\?") && index == 0) return number(model.target());
      if (upper.startsWith("SOUR") && index == 0) return set(line);
      if (index > 0 && OWN.matcher(upper).matches()) return own(upper);
      if (upper.equals("READ?") || upper.startsWith("MEAS")) return reading();
      // The reading that was taken last, without another one.
      if (upper.matches("FETC(?:H)?\\?")) return last.isEmpty() ? reading() : last;
      return common(upper);
    }

    /** What every instrument understands (IEEE 488.2-1992, 10.1, mandatory common commands). */
    private String common(String upper) {
      switch (upper.split("\\s+")[0]) {
        case "*CLS" -> error = "";
        case "*ESE", "*SRE", "*OPC", "*RST", "*WAI" -> {}
        case "*OPC?" -> {
          return "1";
        }
        case "*ESE?", "*ESR?", "*SRE?", "*STB?", "*TST?" -> {
          return "0";
        }
        default -> error = "-113,\"Undefined header\"";
      }
      return "";
    }

    private String identity() {
      String who = index == 0 ? "Reference" : scene().sensors().get(index - 1).tag() + " meter";
      return "Millrace,%s of the %s,%d,0".formatted(who, scene().name(), index);
    }

    private String error() {
      String e = error.isEmpty() ? "0,\"No error\"" : error;
      error = "";
      return e;
    }

    private String set(String line) {
      try {
        double v = Double.parseDouble(line.substring(line.indexOf(' ') + 1).strip());
        Stimulus s = scene().stimulus();
        if (!(v >= s.low() && v <= s.high())) error = "-222,\"Data out of range\"";
        else model.bringTo(v);
      } catch (NumberFormatException e) {
        error = "-104,\"Data type error\"";
      }
      return "";
    }

    /** Ohms or amperes of the sensor by itself, which not every one has. */
    private String own(String upper) {
      boolean ohms = upper.contains("RES");
      boolean has =
          scene().sensors().get(index - 1).own().stream()
              .anyMatch(o -> (o.unit() == RawUnit.OHMS) == ohms);
      if (!has) {
        error = "-221,\"Settings conflict\"";
        return "";
      }
      double v = model.own(index - 1);
      last = Double.isInfinite(v) ? "9.9E37" : number(v);
      return last;
    }

    private String reading() {
      last = number(index == 0 ? model.reference() : model.volts(index - 1));
      return last;
    }

    private static String number(double v) {
      return String.format(Locale.ROOT, "%+.8E", v);
    }

    void close() throws IOException {
      door.close();
      for (Socket g : guests) g.close();
    }
  }

  /**
   * @param speed bench seconds in a second; 0 for time that goes on by command only
   */
  public BenchServer(BenchModel model, double speed) throws IOException {
    this.model = model;
    this.speed = speed;
    for (int i = 0; i <= model.scene().sensors().size(); i++) ports.add(new Port(i));
    control = new Port(-1);
    pace = speed > 0 ? Thread.ofPlatform().daemon().name("bench").start(this::pace) : null;
  }

  private Scene scene() {
    return model.scene();
  }

  private void pace() {
    long last = System.nanoTime();
    while (!closed) {
      try {
        Thread.sleep(5);
      } catch (InterruptedException e) {
        return;
      }
      long now = System.nanoTime();
      model.advance((now - last) * 1e-9 * speed);
      last = now;
    }
  }

  private String command(String line) {
    String[] words = line.split("\\s+");
    try {
      return switch (words[0].toUpperCase(Locale.ROOT)) {
        case "SIM:STEP" -> {
          model.advance(number(words[1], 0, LONGEST_STEP));
          yield "OK";
        }
        case "SIM:TIME?" -> String.valueOf(model.seconds());
        case "SIM:TRUE?" -> String.valueOf(model.applied());
        case "SIM:DEPTH" -> {
          model.depth(Integer.parseInt(words[1]) - 1, number(words[2], -FARTHEST, FARTHEST));
          yield "OK";
        }
        case "SIM:FAULT" -> {
          fault(Integer.parseInt(words[1]), Fault.valueOf(words[2].toUpperCase(Locale.ROOT)));
          yield "OK";
        }
        case "SIM:DO" -> {
          model.doIt(Deed.valueOf(words[1].toUpperCase(Locale.ROOT)));
          yield "OK";
        }
        case "SIM:MOVE" -> move(Integer.parseInt(words[1]));
        case "*IDN?" -> "Millrace,Bench of the %s,0,0".formatted(scene().name());
        default -> "unknown: " + shown(words[0]);
      };
    } catch (IllegalArgumentException | IndexOutOfBoundsException | IOException e) {
      return "not understood: " + shown(line);
    }
  }

  private static String shown(String line) {
    return Sentence.readable("'" + line + "'");
  }

  /** A number that a bench can do something with; neither none nor one without an end. */
  private static double number(String word, double low, double high) {
    double v = Double.parseDouble(word);
    if (!(v >= low && v <= high)) throw new IllegalArgumentException(word);
    return v;
  }

  /** Makes a fault; one that drops the connection does so at once. */
  public void fault(int instrument, Fault fault) throws IOException {
    model.fault(instrument, fault);
    if (fault == Fault.DROPPED) {
      for (Socket g : ports.get(instrument).guests) g.close();
    }
  }

  /** Starts an instrument anew at another port; returns it. */
  private String move(int instrument) throws IOException {
    Port p = ports.get(instrument);
    p.close();
    p.open();
    return String.valueOf(p.door.getLocalPort());
  }

  /** Address of an instrument: 0 the reference, 1 … the meters. */
  public String address(int instrument) {
    return address(ports.get(instrument));
  }

  /** Address of the bench itself. */
  public String control() {
    return address(control);
  }

  private static String address(Port p) {
    return "127.0.0.1:" + p.door.getLocalPort();
  }

  /** The reference as it would stand in a book. */
  public Instrument reference() {
    return scene().reference(address(0));
  }

  /** The meter of a sensor as it would stand in a book. */
  public Instrument meter(int sensor) {
    return scene().meter(sensor, address(sensor + 1));
  }

  @Override
  public void close() {
    closed = true;
    try {
      for (Port p : ports) p.close();
      control.close();
      if (pace != null) pace.join();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }
}
