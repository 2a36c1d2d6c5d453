package nocking.element;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import nocking.converter.Converter;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.sensor.LinearSensor;
import nocking.stage.Divider;
import org.junit.jupiter.api.Test;

/** Parameters describe themselves: unit, range, and how a field is read. */
class FieldTest {
  private static final LinearSensor SENSOR =
      new LinearSensor(v(0.35), v(0), v(0.02), v(0), v(25), v(0));
  private static final Unit CELSIUS = Unit.of("°C");

  @Test
  void unitsFollowTheChannel() {
    assertThat(SENSOR.field("x0").unit(CELSIUS)).isEqualTo(CELSIUS);
    assertThat(SENSOR.field("S").unit(CELSIUS).symbol()).isEqualTo("V/°C");
    assertThat(SENSOR.field("S").unit(CELSIUS).offset()).isZero();
    assertThat(SENSOR.field("V0").unit(CELSIUS)).isEqualTo(Unit.VOLT);
    assertThat(SENSOR.field("S").followsQuantity()).isTrue();
    assertThat(SENSOR.field("V0").followsQuantity()).isFalse();
  }

  @Test
  void fieldReadsWhatIsTypedInAnyUnitOfItsDimension() {
    assertThat(SENSOR.field("S").read("20 mV/degC", CELSIUS).number()).isEqualTo(0.02);
    assertThat(SENSOR.field("x0").read("32 degF", CELSIUS).number()).isEqualTo(0);
    assertThat(SENSOR.field("Rs").read("1k2", CELSIUS).number()).isEqualTo(1200);
  }

  @Test
  void limitsAreSaidInTheFieldsOwnUnit() {
    var divider = new Divider(v(1e3), v(1e3));
    assertThatThrownBy(() -> divider.field("R1").read("0", CELSIUS))
        .isInstanceOf(QuantityException.class)
        .hasMessage("Upper resistor (R1) must be above 0 Ω; read 0");
    var adc = Converter.of(12, 3.3);
    assertThatThrownBy(() -> adc.field("N").read("12.5", CELSIUS))
        .hasMessage("Bits (N) must be a whole number; read 12.5");
    assertThatThrownBy(() -> adc.field("N").read("40", CELSIUS))
        .hasMessage("Bits (N) must be at most 24; read 40");
    assertThat(adc.field("Rin").read(" ", CELSIUS)).as("may stay empty").isNull();
  }

  @Test
  void oneParameterIsChangedAndTheOthersStay() {
    LinearSensor changed = Element.with(SENSOR, SENSOR.field("V0"), v(0.4));
    assertThat(changed.offset().number()).isEqualTo(0.4);
    assertThat(Element.with(changed, SENSOR.field("V0"), v(0.35))).isEqualTo(SENSOR);
    Converter loaded =
        Element.with(Converter.of(12, 3.3), Converter.of(12, 3.3).field("Rin"), v(1e5));
    assertThat(loaded.inputResistance().number()).isEqualTo(1e5);
    assertThat(Element.with(loaded, loaded.field("Rin"), null)).isEqualTo(Converter.of(12, 3.3));
    assertThatThrownBy(() -> SENSOR.field("Q")).isInstanceOf(IllegalArgumentException.class);
  }
}
