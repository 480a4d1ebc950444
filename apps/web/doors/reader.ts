/** The reader of pasted recipes. */
export { ReaderScreen } from "../features/reader/screen";
export { Welcome } from "../features/reader/welcome";
export { PageScreen } from "../features/page/screen";
