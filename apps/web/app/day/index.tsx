import { DaysScreen } from "../../doors/screens";

export default DaysScreen;
