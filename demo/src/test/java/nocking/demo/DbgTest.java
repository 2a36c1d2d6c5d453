package nocking.demo;

import java.util.*;
import nocking.analysis.Analysis;
import nocking.demo.Plant.*;
import nocking.diagnosis.*;
import nocking.fault.*;
import nocking.weighing.Weighing;
import nocking.wiring.Place;
import org.junit.jupiter.api.Test;

class DbgTest {
  @Test
  void dbg() {
    int n = 0;
    for (long seed = 9000; seed < 9480 && n < 6; seed++) {
      var plant = new Plant(seed);
      List<Broken> truth = List.of(plant.any(), plant.any());
      if (truth.get(0).what() == truth.get(1).what()) continue;
      String s = plant + " " + truth;
      boolean sup = s.contains("SUPPLY_HIGH") || s.contains("SUPPLY_LOW");
      if (!sup) continue;
      plant.breakDown(truth);
      Subject subject = Analysis.of(plant.channel()).subject().orElseThrow();
      var engine = Diagnostician.of(subject, Weighing.USUAL);
      var seen = new ArrayList<Observation>();
      for (double along : new double[] {0.15, 0.5, 0.85}) {
        double x = plant.at(along);
        for (Place p : FaultMatrix.places(subject))
          if (p.live() || p.equals(Place.DISPLAY)) seen.add(plant.look(p, x));
      }
      Ranking r = engine.rank(seen);
      if (!r.noneFits() && !r.somethingElse()) continue;
      n++;
      System.out.println(
          "== " + s + " best " + r.best().fault().says() + " " + r.best().probability());
      for (var o : seen)
        System.out.println("   " + o.place().key() + "@" + o.at() + "=" + o.value());
      var two = engine.twoAtOnce(r);
      two.pairs().stream()
          .limit(5)
          .forEach(
              p ->
                  System.out.println(
                      "  fit "
                          + p.probability()
                          + " "
                          + p.misfit()
                          + " "
                          + p.first().says()
                          + " + "
                          + p.second().says()));
    }
  }
}
