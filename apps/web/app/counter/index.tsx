import { CountersScreen } from "../../doors/screens";

export default CountersScreen;
