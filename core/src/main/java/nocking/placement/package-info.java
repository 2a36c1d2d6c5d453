/**
 * Where reference points belong. For a nominal curve, a model and what readings scatter it is known
 * before anything is measured how far the fitted curve could be off between the points: the model's
 * own misfit, and the band that the scatter leaves (least squares: σ² xᵀ(XᵀX)⁻¹x; Seber and Lee,
 * Linear Regression Analysis, 2003, 5.3).
 */
package nocking.placement;
