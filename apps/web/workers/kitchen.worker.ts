import { expose } from "comlink";
import { perform } from "./tasks";

/** One script for both workers of a page: which of them does what stands with whoever asks (device/workers.ts). */
const kitchen = { perform };
export type KitchenWorker = typeof kitchen;
expose(kitchen);
