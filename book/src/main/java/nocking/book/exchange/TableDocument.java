package nocking.book.exchange;

import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.IntStream;
import nocking.firmware.TableFirmware;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.table.Cell;
import nocking.table.StepTable;
import tools.jackson.databind.json.JsonMapper;

/**
 * A table as a document of columns: CSV with a row of units, JSON, or a workbook that looks up.
 *
 * @param axis unit of the raw column
 * @param unit of the output
 * @param descending true for a raw column that falls
 * @param worstError that it leaves, in the unit of the output
 */
public record TableDocument(
    TableFirmware firmware, RawUnit axis, String unit, boolean descending, double worstError) {

  /**
   * The document that the ending of a file's name asks for; empty for one that is none of these.
   */
  public Optional<byte[]> of(String fileName) {
    String name = fileName.toLowerCase(Locale.ROOT);
    if (name.endsWith(".csv")) return Optional.of(bytes(csv()));
    if (name.endsWith(".json")) return Optional.of(bytes(json()));
    return name.endsWith(".xlsx") ? Optional.of(workbook()) : Optional.empty();
  }

  private static byte[] bytes(String text) {
    return text.getBytes(StandardCharsets.UTF_8);
  }

  private StepTable table() {
    return firmware.table();
  }

  /** Cells in the receiver's order. */
  private List<Integer> order() {
    List<Integer> rising = IntStream.range(0, table().count()).boxed().toList();
    return descending ? rising.reversed() : rising;
  }

  public String csv() {
    StepTable t = table();
    var text = new StringBuilder("raw,out\n");
    text.append(axis.unit().symbol()).append(',').append(unit).append('\n');
    for (int i : order()) {
      text.append(Numbers.fixed(t.rawOf(i), t.rawDecimals()))
          .append(',')
          .append(Numbers.fixed(t.outOf(i), t.outDecimals()))
          .append('\n');
    }
    return text.toString();
  }

  public String json() {
    StepTable t = table();
    var fields = new LinkedHashMap<String, Object>();
    fields.put("rawUnit", axis.unit().symbol());
    fields.put("unit", unit);
    fields.put("outside", firmware.outside().key());
    fields.put("worstError", worstError);
    fields.put("crc", "%08X".formatted(firmware.crc()));
    fields.put("breakpoints", order().stream().map(i -> new Cell(t.rawOf(i), t.outOf(i))).toList());
    return JsonMapper.shared().writeValueAsString(fields) + "\n";
  }

  public byte[] workbook() {
    StepTable t = table();
    return TableWorkbook.of(
        axis.unit().symbol(),
        unit,
        order().stream().mapToDouble(t::rawOf).toArray(),
        order().stream().mapToDouble(t::outOf).toArray(),
        t.rawDecimals(),
        t.outDecimals(),
        firmware.outside());
  }
}
