package nocking.book.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.book.exchange.PointColumns.Order;
import nocking.quantity.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Files of points as people and programs write them. */
class PointColumnsTest {
  private static ColumnFile file(String header, String... rows) {
    return ColumnFile.parse(header + "\n" + String.join("\n", rows) + "\n", "p.csv");
  }

  /** Units in the head are units, however they are written there. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "p [kPa];U [mV]      | p;U   | kPa | mV",
        "p (kPa);U (mV)      | p;U   | kPa | mV",
        "p/kPa;U/mV          | p;U   | kPa | mV",
        "p / kPa;U / mV      | p;U   | kPa | mV",
        "p in kPa;U in mV    | p;U   | kPa | mV",
        "kPa;mV              | kPa;mV| kPa | mV",
        "[kPa];[mV]          | [kPa];[mV] | kPa | mV",
        "c [mg/L];U [V]      | c;U   | mg/L | V",
        "c/(mg/L);U/V        | c;U   | mg/L | V",
        "T (°C);code (counts)| T;code| °C | counts",
        "angle [°];R [kohm]  | angle;R | ° | kΩ",
      })
  void unitsOfTheHead(String header, String names, String first, String second) {
    ColumnFile f = file(header.strip(), "10;420", "20;840");
    assertThat(String.join(";", f.header())).isEqualTo(names.strip());
    assertThat(f.unit(0).map(Unit::symbol).orElse("")).isEqualTo(first.strip());
    assertThat(f.unit(1).map(Unit::symbol).orElse("")).isEqualTo(second.strip());
  }

  /** A symbol is no unit because a unit is called alike, and a name in brackets is none at all. */
  @Test
  void namesAreNoUnits() {
    for (String header :
        List.of("T;V", "x;y", "m;U", "applied;reading 1", "run (first);raw (best)")) {
      ColumnFile f = file(header, "1;2");
      assertThat(f.unit(0)).as(header).isEmpty();
      assertThat(f.unit(1)).as(header).isEmpty();
      assertThat(String.join(";", f.header())).isEqualTo(header);
    }
    ColumnFile own = ColumnFile.parse("p [bar];U [V]\nkPa;mV\n1;2\n", "p.csv");
    assertThat(own.unit(0).orElseThrow().symbol()).as("the row of units counts").isEqualTo("kPa");
    assertThat(own.column("p")).isZero();
    assertThat(file("p [kPa];U [mV]", "1;2").column("U [mV]")).isEqualTo(1);
  }

  /** Names come before units, units before order. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        // header | order | applied | readings
        "applied;reading 1;reading 2;direction;left out | RAW_FIRST | 0 | 1,2",
        "raw;out              | APPLIED_FIRST | 1 | 0",
        "raw;true             | RAW_FIRST     | 1 | 0",
        "reading;reference    | APPLIED_FIRST | 1 | 0",
        "reference;reading    | RAW_FIRST     | 0 | 1",
        "code;litres          | APPLIED_FIRST | 1 | 0",
        "litres;code          | RAW_FIRST     | 0 | 1",
        "U [mV];p [kPa]       | APPLIED_FIRST | 1 | 0",
        "p/kPa;U/V            | RAW_FIRST     | 0 | 1",
        "kPa;mV               | RAW_FIRST     | 0 | 1",
        "x;y                  | APPLIED_FIRST | 0 | 1",
        "x;y                  | RAW_FIRST     | 1 | 0",
        // What is in and what is out depends on who says it: then the order tells.
        "in;out               | APPLIED_FIRST | 0 | 1",
        "set;actual           | RAW_FIRST     | 0 | 1",
        "load;deflection      | APPLIED_FIRST | 0 | 1",
        "applied;reading;u;temperature | APPLIED_FIRST | 0 | 1",
        "u;y                  | APPLIED_FIRST | 0 | 1",
      })
  void whatIsWhat(String header, Order order, int applied, String readings) {
    ColumnFile f = file(header.strip(), "1;2;3;4;");
    PointColumns c = PointColumns.of(f, order);
    assertThat(c.applied()).isEqualTo(applied);
    assertThat(c.readings())
        .isEqualTo(List.of(readings.strip().split(",")).stream().map(Integer::valueOf).toList());
  }

  /** What was left out stays out, what is only planned has nothing to say, and both are said. */
  @Test
  void onlyWhatCountsIsGoneBy() {
    ColumnFile f =
        ColumnFile.parse(
            "applied,reading 1,reading 2,direction,left out\nkPa,V,V,,\n"
                + "0,0.5,0.52,up,\n10,0.9,0.9,up,leaked\n20,1.3,,up,\n10,,,down,\n0,0.49,0.51,down,\n",
            "p.csv");
    PointColumns all = PointColumns.of(f, Order.RAW_FIRST);
    PointColumns counts = all.counting();
    assertThat(counts.file().numbers(counts.applied())).containsExactly(0, 20, 0);
    assertThat(counts.means()[0]).isCloseTo(0.51, within(1e-12));
    assertThat(counts.means()[1]).isEqualTo(1.3);
    assertThat(all.notCounting())
        .containsExactly("row 4 is left out: leaked", "row 6 has no reading");
    assertThat(all.down(f.rows().get(4))).isTrue();
    ColumnFile none = file("applied;reading;left out", "1;2;bad");
    assertThatThrownBy(() -> PointColumns.of(none, Order.RAW_FIRST).counting())
        .hasMessage("p.csv has no row that counts");
    assertThatThrownBy(() -> PointColumns.of(file("applied;direction", "1;up"), Order.RAW_FIRST))
        .hasMessageContaining("one column, expected two");
  }
}
