import { warmKitchen } from "../device/workers";

// A page that is opened at the bench: what it will ask the kitchen for is on its way while the rest of its own script is run.
if (/^\/(?:bench\b|$)/.test(globalThis.location?.pathname ?? "")) warmKitchen();
