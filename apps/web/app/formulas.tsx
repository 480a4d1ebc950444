import { FormulasScreen } from "../doors/screens";

export default FormulasScreen;
