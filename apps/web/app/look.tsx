import { LookScreen } from "../features/look/screen";

export default LookScreen;
