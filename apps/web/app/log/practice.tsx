import { PracticeScreen } from "../../features/log/practice-screen";

export default PracticeScreen;
