package nocking.cli;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import nocking.book.BookException;
import nocking.book.exchange.TableColumns;
import nocking.book.exchange.TableDocument;
import nocking.firmware.TableC;
import nocking.firmware.TableFirmware;
import nocking.firmware.TablePython;
import nocking.path.GeneratedEquation;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.table.TableError;

/**
 * A table as files that belong together.
 *
 * @param limit tolerance that it was made for; null for none
 */
record TableFiles(
    TableColumns columns,
    TableFirmware firmware,
    TableError error,
    Value limit,
    boolean descending) {

  /**
   * What goes into which file.
   *
   * @param out null for none, as both folders
   */
  Map<Path, byte[]> of(Path out, Path cFolder, Path pythonFolder) {
    Map<Path, byte[]> files = new LinkedHashMap<>();
    if (out != null) files.put(out, content(out));
    String name = name();
    if (cFolder != null) {
      var c = new TableC(name, firmware, about(), unit());
      files.put(in(cFolder, name + "_table.h"), bytes(c.header()));
      files.put(in(cFolder, name + "_table.c"), bytes(c.source()));
    }
    if (pythonFolder != null) {
      var python = new TablePython(name, firmware, "Table of " + columns.file().source(), unit());
      files.put(in(pythonFolder, name + "_table.py"), bytes(python.source()));
    }
    return files;
  }

  private static Path in(Path folder, String name) {
    if (!Files.isDirectory(folder)) {
      throw new BookException(BookException.Cause.OUTSIDE, folder + " is no folder");
    }
    return folder.resolve(name);
  }

  private static byte[] bytes(String text) {
    return text.getBytes(StandardCharsets.UTF_8);
  }

  private String name() {
    return GeneratedEquation.identifier(columns.file().source().replaceFirst("\\.[^.]*$", ""));
  }

  private String unit() {
    return columns.file().unit(columns.trueColumn()).map(Unit::symbol).orElse("");
  }

  private List<String> about() {
    var lines = new ArrayList<String>();
    lines.add("Table of " + columns.file().source());
    String u = unit();
    lines.add(
        "Worst error %s %s at raw %s, rms %s"
            .formatted(
                Numbers.significant(error.worst(), 3),
                u,
                columns.raw(error.worstAt()),
                Numbers.significant(error.rms(), 3)));
    if (limit != null)
      lines.add("Tolerance %s %s".formatted(Numbers.trimmed(limit.number(), 6), u));
    return lines;
  }

  private byte[] content(Path out) {
    var document = new TableDocument(firmware, columns.axis(), unit(), descending, error.worst());
    return document
        .of(out.getFileName().toString())
        .orElseThrow(
            () ->
                new QuantityException(
                    "--out takes a name ending in .csv, .json or .xlsx; read " + out));
  }
}
