/** The day and its paper. */
export { DayScreen } from "../features/day/screen";
export { DaysScreen } from "../features/day/list-screen";
export { DayPage } from "../features/day/print-page";
