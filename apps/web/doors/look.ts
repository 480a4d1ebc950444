/** The page that shows every piece of the interface. */
export { LookScreen } from "../features/look/screen";
