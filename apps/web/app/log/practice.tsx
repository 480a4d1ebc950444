import { PracticeScreen } from "../../doors/screens";

export default PracticeScreen;
