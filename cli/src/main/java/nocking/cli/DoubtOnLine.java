package nocking.cli;

import java.io.PrintWriter;
import nocking.bench.run.RunEngine;
import nocking.run.RunSnapshot;

/** Asks on standard error, once for each, what is to become of what something speaks against. */
final class DoubtOnLine implements RunEngine.Listener {
  private final PrintWriter err;
  private final boolean asks;
  private String said = "";

  /**
   * @param asks true where somebody is there to be asked
   */
  DoubtOnLine(PrintWriter err, boolean asks) {
    this.err = err;
    this.asks = asks;
  }

  @Override
  public void changed(RunSnapshot now) {
    String speaks = now.doubted() ? now.warning() : "";
    if (speaks.equals(said)) return;
    said = speaks;
    if (!asks || speaks.isEmpty()) return;
    err.println("%s. %s?".formatted(speaks, WordsOnLine.WORDS));
    err.flush();
  }
}
