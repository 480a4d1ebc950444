import { DaysScreen } from "../../features/day/list-screen";

export default DaysScreen;
