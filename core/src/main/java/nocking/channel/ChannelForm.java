package nocking.channel;

import java.util.List;
import nocking.band.BandPlan;
import nocking.check.CheckTable;
import nocking.converter.Converter;
import nocking.fit.Trim;
import nocking.points.PointSet;
import nocking.sensor.Sensor;
import nocking.stage.Stage;
import nocking.table.BenchPairs;
import nocking.table.DisplayLimits;
import nocking.table.TableSpec;
import nocking.table.Transfer;
import nocking.table.TypedCell;
import nocking.wiring.Checklist;
import nocking.wiring.Observation;
import nocking.wiring.WirePlan;

/**
 * A channel as it is written: flat, as every version has written it. The components are the fields
 * of the JSON form in their order, so that a book and its hashes do not depend on how the program
 * is cut.
 */
record ChannelForm(
    String id,
    Definition definition,
    Sensor sensor,
    List<Stage> stages,
    Converter converter,
    WirePlan wiring,
    PointSet points,
    Adopted adopted,
    TableSpec table,
    CheckTable check,
    List<Note> notes,
    boolean locked,
    CardRef card,
    Surroundings surroundings,
    BandPlan bands,
    List<Observation> seen,
    StoredCurve stored,
    DisplayLimits limits,
    Overload overload,
    Checklist checklist,
    Trim trim,
    BenchPairs bench,
    List<TypedCell> typing,
    List<Transfer> transfers) {

  static ChannelForm of(Channel c) {
    Design d = c.design();
    return new ChannelForm(
        c.id(),
        d.definition(),
        d.sensor(),
        d.stages(),
        d.converter(),
        c.wiring().plan(),
        c.calibration().points(),
        c.calibration().adopted(),
        c.receiver().table(),
        c.acceptance().check(),
        c.journal().notes(),
        c.journal().locked(),
        d.card(),
        d.surroundings(),
        c.wiring().bands(),
        c.wiring().seen(),
        c.receiver().stored(),
        c.receiver().limits(),
        d.overload(),
        c.wiring().checklist(),
        c.calibration().trim(),
        c.receiver().bench(),
        c.receiver().typing(),
        c.receiver().transfers());
  }

  Channel channel() {
    return new Channel(
        id,
        new Design(definition, sensor, card, stages, converter, surroundings, overload),
        new Wiring(wiring, bands, seen, checklist),
        new Calibration(points, adopted, trim),
        new Receiver(table, stored, limits, bench, typing, transfers),
        new Acceptance(check),
        new Journal(notes, locked));
  }
}
