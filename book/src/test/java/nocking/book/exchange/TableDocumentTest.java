package nocking.book.exchange;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import java.util.zip.ZipFile;
import nocking.firmware.TableFirmware;
import nocking.points.RawUnit;
import nocking.table.Outside;
import nocking.table.StepTable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A table in each of its documents, read back. */
class TableDocumentTest {
  private static final StepTable TABLE =
      new StepTable(2, 1, new int[] {25, 140, 310}, new long[] {-55, 0, 123}, false);

  @TempDir Path folder;

  private static TableDocument document(boolean descending) {
    TableFirmware f = TableFirmware.of(TABLE, Outside.HOLD, 12, 32, true);
    return new TableDocument(f, RawUnit.VOLTS, "°C", descending, 0.08);
  }

  @Test
  void columnsComeBackAsTheyWereWritten() {
    ColumnFile read = ColumnFile.parse(document(true).csv(), "t.csv");
    assertThat(read.numbers(0)).containsExactly(3.10, 1.40, 0.25);
    assertThat(read.numbers(1)).containsExactly(12.3, 0.0, -5.5);
    TableColumns columns = TableColumns.of(read, null, null, null);
    assertThat(columns.axis()).isEqualTo(RawUnit.VOLTS);
    assertThat(document(true).csv()).contains("3.10,12.3");
  }

  @Test
  void jsonHasTheCellsInTheReceiversOrder() {
    JsonNode json = JsonMapper.shared().readTree(document(false).json());
    assertThat(json.get("breakpoints").get(0).toString()).isEqualTo("{\"raw\":0.25,\"out\":-5.5}");
    assertThat(json.get("outside").asString()).isEqualTo("hold");
    assertThat(json.get("crc").asString()).matches("[0-9A-F]{8}");
  }

  /** The workbook's cells, and a formula that names just these. */
  @Test
  void theWorkbookHoldsTheCellsAndLooksThemUp() throws IOException {
    String sheet = part(document(false).workbook(), "xl/worksheets/sheet1.xml");
    var numbers = new ArrayList<Double>();
    var cell = Pattern.compile("<c r=\"([AB])(\\d+)\"[^>]*><v>([^<]+)</v>").matcher(sheet);
    while (cell.find()) {
      if (Integer.parseInt(cell.group(2)) > 2) numbers.add(Double.parseDouble(cell.group(3)));
    }
    assertThat(numbers).containsExactly(0.25, -5.5, 1.4, 0.0, 3.1, 12.3);
    assertThat(sheet).contains("$A$3:$A$5").contains("$B$3:$B$5").doesNotContain("$A$6");
  }

  @Test
  void anotherEndingHasNoDocument() {
    assertThat(document(false).of("table.pdf")).isEmpty();
    for (String ending : List.of("csv", "JSON", "xlsx")) {
      assertThat(document(false).of("t." + ending)).isPresent();
    }
  }

  private String part(byte[] workbook, String name) throws IOException {
    Path file = folder.resolve("t.xlsx");
    Files.write(file, workbook);
    try (var zip = new ZipFile(file.toFile());
        var in = zip.getInputStream(zip.getEntry(name))) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
  }
}
