import { StoreScreen } from "../features/store/screen";

export default StoreScreen;
