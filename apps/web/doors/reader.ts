/** The reader of pasted recipes. */
export { ReaderScreen } from "../features/reader/screen";
