import { LogScreen } from "../../doors/screens";

export default LogScreen;
