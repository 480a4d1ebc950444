import { LearntScreen } from "../../doors/screens";

export default LearntScreen;
