package nocking.book.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.element.Signal;
import nocking.parts.StockPart;
import nocking.quantity.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Datasheet tables and drawers as they are copied from anywhere. */
class SensorTableTest {
  private static final Unit CELSIUS = Unit.of("°C");

  private static SensorTable read(String text) {
    return SensorTable.of(ColumnFile.parse(text, "table"), CELSIUS);
  }

  /** The same table in the ways in which datasheets print it. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "T,R\ndegC,kohm\n0,32.65\n25,10\n",
        "T [degC];R [kohm]\n0;32,65\n25;10,0\n",
        "R/kohm\tT/degC\n32.65\t0\n10\t25\n",
        "T\tR\ndegF\tohm\n32\t32650\n77\t10000\n",
        "T,R\n0 degC,32.65 kohm\n25 degC,10 kohm\n"
      })
  void unitsAreTakenFromWhereverTheyStand(String text) {
    SensorTable t = read(text);
    assertThat(t.signal()).isEqualTo(Signal.RESISTANCE);
    assertThat(t.points().get(0).at().number()).isCloseTo(0, within(1e-9));
    assertThat(t.points().get(0).output().number()).isCloseTo(32650, within(1e-6));
    assertThat(t.points().get(1).at().number()).isCloseTo(25, within(1e-9));
    assertThat(t.points().get(1).output().number()).isCloseTo(10000, within(1e-6));
  }

  @Test
  void withoutUnitsTheOutputIsVoltsAndItIsSaid() {
    SensorTable t = read("x,y\n0,0.5\n10,1.5\n");
    assertThat(t.signal()).isEqualTo(Signal.VOLTAGE);
    assertThat(t.says()).contains("(no unit was given)");
  }

  @Test
  void cellThatIsNoNumberIsNamed() {
    assertThatThrownBy(() -> read("T,R\ndegC,ohm\n0,100\n10,about 104\n"))
        .isInstanceOf(ColumnException.class)
        .hasMessageContaining("table row 4, column R");
    assertThatThrownBy(() -> read("T\n0\n10\n")).hasMessageContaining("one column");
    assertThatThrownBy(() -> read("T,R\n0,1\n")).hasMessageContaining("expected at least two");
  }

  @Test
  void drawerGoesOutAndComesInAgain() {
    var drawer =
        List.of(
            new StockPart("left, top", 4700, 1, 0.25, 250, 3),
            new StockPart("=danger", 390e3, 5, 0.5, 0, 0),
            new StockPart("two\nlines", 1e3, 5, 0.5, 0, 1));
    String csv = StockCsv.write(drawer);
    assertThat(csv).contains("'=danger").contains("\"left, top\"");
    assertThat(StockCsv.read(ColumnFile.parse(csv, "drawer"))).isEqualTo(drawer);
  }

  @Test
  void drawerTakesCodesAndUnits() {
    List<StockPart> parts =
        StockCsv.read(
            ColumnFile.parse("ohms;tol;power;pieces\n4k7;1%;250mW;3\n1M;5 %;;\n", "drawer"));
    assertThat(parts)
        .containsExactly(
            new StockPart("", 4700, 1, 0.25, 0, 3), new StockPart("", 1e6, 5, 0, 0, 1));
    assertThatThrownBy(() -> StockCsv.read(ColumnFile.parse("value,tolerance\n-5,1\n", "drawer")))
        .hasMessage("drawer row 2: a part must be above 0 Ω");
  }
}
