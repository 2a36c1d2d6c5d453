package nocking.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.stream.IntStream;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BenchServer;
import nocking.bench.simulated.Scene;
import nocking.book.BookException;
import nocking.quantity.QuantityException;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** A simulated bench that is asked as a real one is; it stands until it is stopped. */
@Command(
    name = "simulate",
    description = {
      "Start a simulated bench on loopback and print where its instruments answer.",
      "It stands until it is interrupted."
    })
final class SimulateCommand extends JsonOption {
  @Option(
      names = "--scene",
      paramLabel = "NAME",
      defaultValue = "bath",
      description =
          "What stands on the bench: bath, pump, slide, tank, sump, well, mains, frame,"
              + " oxygen, stroke, lever, clamp or teach.")
  String scene;

  @Option(
      names = "--seed",
      paramLabel = "S",
      defaultValue = "1",
      description = "Seed of what scatters.")
  long seed;

  @Option(
      names = "--speed",
      paramLabel = "F",
      defaultValue = "1",
      description = "Bench seconds in a second; 0 lets time go on by command only (SIM:STEP).")
  double speed;

  @Override
  int run(Answer answer) {
    Scene of =
        Scene.named(scene)
            .orElseThrow(
                () ->
                    new QuantityException(
                        "read scene '%s', expected one of %s"
                            .formatted(
                                scene,
                                String.join(
                                    ", ", Scene.all().stream().map(Scene::name).toList()))));
    if (!(speed >= 0) || speed > 1e6) {
      throw new QuantityException("read speed %s, expected 0 … 1 000 000".formatted(speed));
    }
    try (var server = new BenchServer(new BenchModel(of, seed), speed)) {
      say(server, of);
      new CountDownLatch(1).await();
    } catch (IOException e) {
      throw new BookException(
          BookException.Cause.OUTSIDE, "the bench finds no port on this machine", e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    return 0;
  }

  /** Whoever waits for the addresses gets them before the bench begins to wait. */
  private void say(BenchServer server, Scene of) {
    var said = new Answer();
    List<String> tags = of.sensors().stream().map(s -> s.tag()).toList();
    said.put("scene", of.name())
        .put("reference", server.address(0))
        .put(
            "meters",
            IntStream.range(0, tags.size())
                .mapToObj(
                    i -> Answer.object("channel", tags.get(i), "address", server.address(i + 1)))
                .toList())
        .put("control", server.control());
    said.line("%s: %s", of.name(), of.title());
    said.line("reference  %s  %s", server.address(0), of.stimulus().unit());
    for (int i = 0; i < tags.size(); i++) {
      said.line("meter      %s  V, of %s", server.address(i + 1), tags.get(i));
    }
    said.line("bench      %s", server.control());
    PrintWriter out = spec.commandLine().getOut();
    said.print(out, json);
  }
}
