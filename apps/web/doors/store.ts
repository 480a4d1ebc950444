/** The store and its forms. */
export { StoreScreen } from "../features/store/screen";
