package nocking.channel;

import java.util.List;
import nocking.fit.Coefficient;
import nocking.fit.FitModel;
import nocking.quantity.QuantityException;

/**
 * The model that the channel goes by, with its constants as they were when it was adopted: later
 * points do not change a settled calibration behind anyone's back.
 *
 * @param model key of the model; {@code design} for the design equation as it is
 * @param coefficients empty for the design equation
 * @param points how many points it was fitted to
 */
public record Adopted(String model, List<Coefficient> coefficients, int points) {
  public static final String DESIGN_MODEL = "design";
  public static final Adopted DESIGN = new Adopted(DESIGN_MODEL, List.of(), 0);

  public Adopted {
    coefficients = List.copyOf(coefficients);
  }

  /**
   * Refuses a model that is not known, or constants that are not its own.
   *
   * @throws QuantityException naming them
   */
  public void require() {
    if (isDesign()) return;
    FitModel known =
        FitModel.of(model)
            .orElseThrow(
                () ->
                    new QuantityException(
                        "the adopted model '%s' is not known to this version of Nocking"
                            .formatted(model)));
    known.curve(coefficients);
  }

  public boolean isDesign() {
    return model.equals(DESIGN_MODEL);
  }
}
