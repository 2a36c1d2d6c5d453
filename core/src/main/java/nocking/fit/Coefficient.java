package nocking.fit;

/**
 * One fitted constant.
 *
 * @param name symbol in the model's equation
 * @param standardError NaN where the points leave no freedom to tell it
 */
public record Coefficient(String name, double value, double standardError) {}
