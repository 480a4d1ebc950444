/** The list of formulas. */
export { FormulasScreen } from "../features/formula/list-screen";
