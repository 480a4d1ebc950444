import { DesignScreen } from "../doors/screens";

export default DesignScreen;
