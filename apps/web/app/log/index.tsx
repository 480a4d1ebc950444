import { LogScreen } from "../../features/log/list-screen";

export default LogScreen;
