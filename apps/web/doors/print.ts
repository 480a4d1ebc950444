/** Papers of a formula. */
export { FormulaPage } from "../features/formula/print-page";
export { LabelSheet } from "../features/label/print-page";
export { ManyPage } from "../features/label/many-page";
