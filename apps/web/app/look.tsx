import { LookScreen } from "../doors/screens";

export default LookScreen;
