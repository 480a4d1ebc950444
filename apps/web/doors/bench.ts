/** The bench with the door to its rooms, and the day: what is dragged stands behind one door, so that what drags it does. */
export { BenchHome } from "../features/formula/home";
export { BenchScreen } from "../features/formula/screen";
export { RoomView } from "../features/formula/room-view";
export { DayScreen } from "../features/day/screen";
export { DaysScreen } from "../features/day/list-screen";
export { DayPage } from "../features/day/print-page";
