import { type InstrumentName, instrumentNames, instrumentTitle } from "../instruments/sentences";

export type RoomName = InstrumentName | "versions" | "balance" | "swap" | "parts" | "steps" | "label" | "many" | "send";

export const roomTitle: Record<RoomName, string> = {
  ...instrumentTitle,
  versions: "Versions",
  balance: "Balance and wishes",
  swap: "Swap",
  parts: "Parts",
  steps: "Steps",
  label: "Label and keeping",
  many: "Many of it",
  send: "Out of here",
};

const names = new Set<string>(Object.keys(roomTitle));

/** The room that an address names, null for the sheet alone, undefined for one that there is not. */
export const roomFrom = (name: string | undefined): RoomName | null | undefined =>
  name === undefined || name === "" ? null : names.has(name) ? (name as RoomName) : undefined;

export const isInstrument = (room: RoomName | null): room is InstrumentName =>
  room !== null && (instrumentNames as readonly string[]).includes(room);
