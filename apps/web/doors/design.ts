/** The design of a formula. */
export { DesignScreen } from "../features/design/screen";
