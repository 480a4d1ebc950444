import { FormulasScreen } from "../features/formula/list-screen";

export default FormulasScreen;
