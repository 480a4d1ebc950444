import { FormulasScreen } from "../features/formulas/screen";

export default FormulasScreen;
