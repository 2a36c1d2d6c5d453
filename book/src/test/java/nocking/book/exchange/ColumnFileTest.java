package nocking.book.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Column files are recognised, shown, and read without guessing in silence. */
class ColumnFileTest {

  @Test
  void delimiterDecimalHeaderAndUnitsAreRecognised() {
    ColumnFile f = ColumnFile.parse("\uFEFFapplied;reading\n°C;mV\n4,5;330,1\n9;1650\n", "f.csv");
    assertThat(f.says())
        .isEqualTo(
            "2 rows of 2 columns between semicolons, decimal comma, with a header, units °C, mV");
    assertThat(f.numbers(0)).containsExactly(4.5, 9);
    assertThat(f.unit(1)).contains(Unit.of("mV"));
    assertThat(ColumnFile.parse("1,2\n3,4\n", "f").says())
        .isEqualTo("2 rows of 2 columns between commas, decimal point, no header, no units");
    assertThat(ColumnFile.parse("a\tb\n1.5\t2\n", "f").delimiter()).isEqualTo('\t');
    assertThat(ColumnFile.parse("\"a, b\",c\n\"1\",2\n", "f").header())
        .containsExactly("a, b", "c");
    assertThat(ColumnFile.parse("x,y\n[kPa],(V)\n1,2\n", "f").units()).containsExactly("kPa", "V");
  }

  @Test
  void wrongCellsAreNamedWithTheirPlace() {
    ColumnFile f = ColumnFile.parse("q,raw\n\n1,0.1\n2,abc\n3\n", "f.csv");
    assertThatThrownBy(() -> f.numbers(1))
        .isInstanceOf(ColumnException.class)
        .hasMessage("f.csv, row 4, column raw: read 'abc', expected a number");
    assertThatThrownBy(() -> f.number(f.rows().get(2), 1))
        .hasMessage("f.csv, row 5: has 1 cell, expected 2");
    assertThatThrownBy(() -> f.column("volts"))
        .hasMessage("f.csv has no column 'volts'; it has q, raw");
    assertThat(f.column("2")).isEqualTo(1);
  }

  @Test
  void filesThatAreNoTablesAreRefused(@TempDir Path folder) throws IOException {
    Path binary = Files.write(folder.resolve("b.csv"), new byte[] {(byte) 0xff, (byte) 0xfe, 0, 1});
    assertThatThrownBy(() -> ColumnFile.read(binary)).hasMessageContaining("not text in UTF-8");
    Path empty = Files.createFile(folder.resolve("e.csv"));
    assertThatThrownBy(() -> ColumnFile.read(empty)).hasMessageContaining("is empty");
    assertThatThrownBy(() -> ColumnFile.read(folder)).hasMessageContaining("is a folder");
    assertThatThrownBy(() -> ColumnFile.read(folder.resolve("none")))
        .hasMessageContaining("does not exist");
  }

  private static Channel pressure() {
    return Channel.blank("1", "BL-P1")
        .define(d -> d.withKind(QuantityKind.PRESSURE).withUnit("kPa"));
  }

  @Test
  void foreignUnitsAreConvertedAndKeptAsTyped() {
    ColumnFile f = ColumnFile.parse("raw,p\nmV,psi\n530,25\n", "f.csv");
    PointsCsv.Mapping m = PointsCsv.guess(f, pressure());
    assertThat(m.applied()).isEqualTo(1);
    ReferencePoint p = PointsCsv.read(f, m, Unit.of("kPa"), RawUnit.VOLTS).getFirst();
    assertThat(p.applied().typed()).isEqualTo("25 psi");
    assertThat(p.applied().number()).isCloseTo(172.369, within(1e-3));
    assertThat(p.mean()).isCloseTo(0.53, within(1e-12));
  }

  static LongStream seeds() {
    return LongStream.range(0, 40);
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void pointsComeBackWithoutLoss(long seed) {
    Random r = new Random(seed);
    List<ReferencePoint> points =
        IntStream.range(0, r.nextInt(8))
            .mapToObj(
                i ->
                    new ReferencePoint(
                        Value.of(r.nextGaussian() * 1e3),
                        IntStream.range(0, r.nextInt(4))
                            .mapToObj(k -> Value.of(r.nextDouble()))
                            .toList(),
                        r.nextBoolean(),
                        r.nextBoolean()
                            ? null
                            : "=cmd|' /C calc'!A" + i + ", \"bath\"\nnot settled"))
            .toList();
    Channel c = pressure().calibration(k -> k.withPoints(new PointSet(RawUnit.VOLTS, points)));
    String csv = PointsCsv.write(c);
    assertThat(csv).doesNotContain(",=").doesNotContain("\"=");
    if (points.isEmpty()) return;
    ColumnFile f = ColumnFile.parse(csv, "points.csv");
    assertThat(PointsCsv.read(f, PointsCsv.guess(f, c), c.unit(), RawUnit.VOLTS)).isEqualTo(points);
  }

  @Test
  void filesAreWrittenWholeOrNotAtAll(@TempDir Path folder) throws IOException {
    Path target = folder.resolve("t.txt");
    Output.write(target, "one", false);
    assertThatThrownBy(() -> Output.write(target, "two", false))
        .hasMessageContaining("exists already");
    assertThat(target).hasContent("one");
    Output.write(target, "two", true);
    assertThat(target).hasContent("two");
    assertThatThrownBy(() -> Output.write(folder.resolve("none/t.txt"), "x", false))
        .hasMessageContaining("cannot be written");
    try (var files = Files.list(folder)) {
      assertThat(files).hasSize(1);
    }
  }

  /** Values with a prefix or a unit are no names: the first of them is not lost for a header. */
  @Test
  void valuesAreNoNames() {
    ColumnFile bare = ColumnFile.parse("19.8k\n12.4k\n", "it");
    assertThat(bare.named()).isFalse();
    assertThat(bare.rows()).hasSize(2);
    assertThat(ColumnFile.parse("10 °C\t19,9 kΩ\n20 °C\t12,5 kΩ\n", "it").rows()).hasSize(2);
    // A name may begin with a number, and stands beside others.
    assertThat(ColumnFile.parse("T\t5V\n10\t1.2\n", "it").named()).isTrue();
    assertThat(ColumnFile.parse("set point\n10\n", "it").named()).isTrue();
  }
}
