import { CountersScreen } from "../../features/counter/list-screen";

export default CountersScreen;
