/** The counter. */
export { CounterScreen } from "../features/counter/screen";
export { CountersScreen } from "../features/counter/list-screen";
