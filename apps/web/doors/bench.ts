/** The bench: sheet, strip and the door to its rooms. */
export { BenchHome } from "../features/formula/home";
export { BenchScreen } from "../features/formula/screen";
export { RoomView } from "../features/formula/room-view";
