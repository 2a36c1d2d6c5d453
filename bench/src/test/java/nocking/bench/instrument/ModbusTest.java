package nocking.bench.instrument;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;
import static org.assertj.core.api.Assertions.within;

import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.Random;
import java.util.concurrent.ConcurrentHashMap;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.run.Instrument;
import nocking.run.Instrument.Language;
import org.junit.jupiter.api.Test;

/** Registers over TCP, against a device that is written down here byte by byte. */
class ModbusTest {
  /** A device: functions 3, 4 and 16 of the protocol (V1.1b3, 6.3, 6.4, 6.12), unit 7 only. */
  private static final class Device implements AutoCloseable {
    final ServerSocket door = new ServerSocket(0, 4, InetAddress.getLoopbackAddress());
    final ConcurrentHashMap<Integer, Integer> input = new ConcurrentHashMap<>();
    final ConcurrentHashMap<Integer, Integer> holding = new ConcurrentHashMap<>();
    volatile boolean silent;

    Device() throws IOException {
      Thread.ofVirtual().start(this::accept);
    }

    private void accept() {
      while (!door.isClosed()) {
        try {
          Socket guest = door.accept();
          Thread.ofVirtual().start(() -> serve(guest));
        } catch (IOException e) {
          return;
        }
      }
    }

    private void serve(Socket guest) {
      try (guest) {
        var in = new DataInputStream(guest.getInputStream());
        var out = new DataOutputStream(guest.getOutputStream());
        while (true) {
          int transaction = in.readUnsignedShort();
          in.readUnsignedShort();
          byte[] body = new byte[in.readUnsignedShort()];
          in.readFully(body);
          if (silent) continue;
          byte[] answer = answer(body);
          out.writeShort(transaction);
          out.writeShort(0);
          out.writeShort(answer.length + 1);
          out.writeByte(body[0]);
          out.write(answer);
          out.flush();
        }
      } catch (IOException e) {
        // The guest has left.
      }
    }

    private byte[] answer(byte[] b) {
      int function = b[1];
      int first = word(b, 2);
      int count = word(b, 4);
      var from = function == 4 ? input : holding;
      if (function == 16) {
        for (int i = 0; i < count; i++) holding.put(first + i, word(b, 7 + 2 * i));
        return new byte[] {16, b[2], b[3], b[4], b[5]};
      }
      byte[] a = new byte[2 + 2 * count];
      a[0] = b[1];
      a[1] = (byte) (2 * count);
      for (int i = 0; i < count; i++) {
        Integer v = from.get(first + i);
        if (v == null) return new byte[] {(byte) (function | 0x80), 2};
        a[2 + 2 * i] = (byte) (v >> 8);
        a[3 + 2 * i] = v.byteValue();
      }
      return a;
    }

    private static int word(byte[] b, int at) {
      return (b[at] & 0xFF) << 8 | b[at + 1] & 0xFF;
    }

    Instrument instrument(String ask) {
      return Instrument.of(
          "Logger", Language.MODBUS, "127.0.0.1:" + door.getLocalPort() + "/7", ask, Unit.VOLT);
    }

    @Override
    public void close() throws IOException {
      door.close();
    }
  }

  @Test
  void registersAreRead() throws Exception {
    try (var device = new Device()) {
      int bits = Float.floatToIntBits(1.6437f);
      device.input.put(4, bits >>> 16);
      device.input.put(5, bits & 0xFFFF);
      device.holding.put(16, 0xFFF6);
      device.holding.put(20, 0xC350);
      try (Reference r = Connection.open(device.instrument("input 4 float"))) {
        assertThat(r.read()).isCloseTo(1.6437, within(1e-7));
        for (float none : new float[] {Float.NaN, 9.9e37f, -9.91e37f, Float.POSITIVE_INFINITY}) {
          device.input.put(4, Float.floatToIntBits(none) >>> 16);
          device.input.put(5, Float.floatToIntBits(none) & 0xFFFF);
          assertThat(catchThrowableOfType(InstrumentException.class, r::read).kind())
              .as("%s", none)
              .isEqualTo(Kind.OVERRANGE);
        }
      }
      try (Reference r = Connection.open(device.instrument("holding 16 int16 /100"))) {
        assertThat(r.read()).isEqualTo(-0.1);
      }
      try (Reference r = Connection.open(device.instrument("holding 20 uint16 /10"))) {
        assertThat(r.read()).isEqualTo(5000);
      }
    }
  }

  @Test
  void aSetPointIsWritten() throws Exception {
    try (var device = new Device()) {
      device.holding.put(0, 1);
      Instrument i = device.instrument("holding 0 int16").withSet("holding 30 int32 swapped /1000");
      try (Reference r = Connection.open(i)) {
        r.bringTo(-12.345);
        assertThat(device.holding).containsEntry(30, -12345 & 0xFFFF).containsEntry(31, 0xFFFF);
        assertThatThrownBy(() -> r.bringTo(3e9))
            .isInstanceOf(InstrumentException.class)
            .hasMessageContaining("does not take the set point")
            .hasMessageContaining("int32");
      }
    }
  }

  /** What fails is said in one sentence, and what kind of failure it is. */
  @Test
  void whatFailsIsSaid() throws Exception {
    try (var device = new Device()) {
      device.input.put(0, 5);
      try (Reference r = Connection.open(device.instrument("input 9 int16"))) {
        var odd = catchThrowableOfType(InstrumentException.class, r::read);
        assertThat(odd.kind()).isEqualTo(Kind.ODD_ANSWER);
        assertThat(odd).hasMessage("Logger answered with exception 2");
      }
      try (Reference r = Connection.open(device.instrument("input 0 int16"))) {
        assertThat(r.read()).isEqualTo(5);
        device.silent = true;
        var silent = catchThrowableOfType(InstrumentException.class, r::read);
        assertThat(silent.kind()).isEqualTo(Kind.NO_ANSWER);
      }
      var wrong =
          catchThrowableOfType(
              InstrumentException.class, () -> Connection.open(device.instrument("coil 3")));
      assertThat(wrong).hasMessageContaining("'coil 3'").hasMessageContaining("input 0 float");
      Instrument address = device.instrument("input 0 int16").withAddress("nowhere");
      assertThat(catchThrowableOfType(InstrumentException.class, () -> Connection.open(address)))
          .hasMessageContaining("HOST:PORT/UNIT");
    }
    Instrument rtu =
        Instrument.of(
            "Rtu", Language.MODBUS_RTU, "/dev/no-such-line@9600/3", "input 0 int16", Unit.VOLT);
    assertThat(catchThrowableOfType(InstrumentException.class, () -> Connection.open(rtu)).kind())
        .isEqualTo(Kind.REFUSED);
  }

  /** Every number that a form can hold comes back from its words; any other is refused. */
  @Test
  void numbersComeBackFromTheirWords() {
    var r = new Random(3);
    String[] forms = {"int16", "uint16", "int32", "uint32", "float"};
    double[][] ends = {
      {-32768, 32767}, {0, 65535}, {-2147483648.0, 2147483647.0}, {0, 4294967295.0}, {-1e30, 1e30}
    };
    for (int k = 0; k < forms.length; k++) {
      for (String swapped : new String[] {"", " swapped"}) {
        Registers form = Registers.parse("holding 0 " + forms[k] + swapped + " /10");
        for (int i = 0; i < 300; i++) {
          double low = ends[k][0];
          double high = ends[k][1];
          double v = i == 0 ? low : i == 1 ? high : low + r.nextDouble() * (high - low);
          double slack = k == 4 ? Math.abs(v) * 1e-7 : 0.5;
          assertThat(form.decode(form.encode(v / 10)) * 10).isCloseTo(v, within(slack));
        }
        if (k == 4) continue;
        for (double out : new double[] {ends[k][0] - 1, ends[k][1] + 1, Double.NaN}) {
          assertThatThrownBy(() -> form.encode(out / 10)).isInstanceOf(QuantityException.class);
        }
      }
    }
    for (String odd :
        new String[] {
          "",
          "input",
          "input x float",
          "input 65535 float",
          "input 0 double",
          "input 0 int16 /0",
          "input -1 int16"
        }) {
      assertThatThrownBy(() -> Registers.parse(odd)).isInstanceOf(QuantityException.class);
    }
  }
}
