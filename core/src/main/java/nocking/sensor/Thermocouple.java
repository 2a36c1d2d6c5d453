package nocking.sensor;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Optional;
import nocking.algebra.Expr;
import nocking.element.Choice;
import nocking.element.Measurand;
import nocking.element.Parameter;
import nocking.element.Symbols;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * Thermocouple with its cold junction at a known temperature: V = E(t) − E(t_cj), turned round as t
 * = E⁻¹(V + E(t_cj)) on the reference function itself, not on its approximate inverse polynomials.
 *
 * @param coldJunction t_cj, °C
 * @param sourceResistance resistance of the wires, ohms
 */
@JsonTypeName("thermocouple")
public record Thermocouple(
    @Choice(label = "Type") ThermocoupleType type,
    @Parameter(symbol = "Tcj", label = "Cold junction", unit = "degC", least = -50, most = 100)
        Value coldJunction,
    @Parameter(symbol = "Rs", label = "Source resistance", unit = "ohm", least = 0)
        Value sourceResistance)
    implements Sensor {

  static final Thermocouple EXAMPLE =
      new Thermocouple(ThermocoupleType.K, Value.of(25), Value.of(0));

  @Override
  public String model() {
    return "thermocouple";
  }

  @Override
  public String title() {
    return "Thermocouple";
  }

  @Override
  public String inHand() {
    return "thermocouple";
  }

  @Override
  public String summary() {
    return "%s, cold junction %s °C"
        .formatted(type.title(), Numbers.trimmed(coldJunction.number(), 4));
  }

  @Override
  public Expr output(Measurand x, Symbols own) {
    Expr hot = x.in(Unit.CELSIUS).through(type.reference(), Expr.Mode.VALUE);
    Expr cold = own.of("Tcj").through(type.reference(), Expr.Mode.VALUE);
    return hot.minus(cold).over(Expr.num(1000));
  }

  @Override
  public Optional<Expr> seriesResistance(Measurand x, Symbols own) {
    return Sensor.source(sourceResistance, own);
  }

  @Override
  public boolean ratedByStandard() {
    return true;
  }

  @Override
  public Span rated(Unit quantity) {
    Span branch = type.reference().branch();
    return NtcBeta.celsius(Value.of(branch.low()), Value.of(branch.high()), quantity);
  }

  @Override
  public Optional<Span> known(Unit quantity) {
    Span all = type.reference().domain();
    return Optional.of(NtcBeta.celsius(Value.of(all.low()), Value.of(all.high()), quantity));
  }
}
