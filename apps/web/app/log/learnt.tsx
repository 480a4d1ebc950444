import { LearntScreen } from "../../features/log/learnt-screen";

export default LearntScreen;
