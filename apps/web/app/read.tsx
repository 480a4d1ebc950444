import { ReaderScreen } from "../features/reader/screen";

export default ReaderScreen;
