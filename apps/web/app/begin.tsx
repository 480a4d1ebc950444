import { DesignScreen } from "../features/design/screen";

export default DesignScreen;
