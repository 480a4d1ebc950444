import type { Analysis, Edit, Formula, Opened, Proposal, Simulation } from "@uprise/core";
import { createContext, useContext } from "react";
import type { KitchenHere } from "../wire/queries";
import type { RoomName } from "./rooms";

/** The formula on the bench with its readings, for the rooms around it. */
export interface BenchState {
  id: string;
  /** As it is seen, with a proposal that is tried on; `own` is without it. */
  formula: Formula;
  own: Formula;
  /** The bench holds what is not saved. */
  unsaved: boolean;
  analysis: Analysis | null;
  simulation: Simulation | null;
  baking: boolean;
  /** Why the bake could not be computed. */
  unbaked: string | null;
  kitchen: KitchenHere;
  open: () => Opened;
  edit: (edit: Edit) => void;
  replace: string | null;
  tried: Proposal | null;
  onTry: (proposal: Proposal | null) => void;
  leave: () => void;
  /** The room that is shown; on a wide screen one is always open, and `byItself` then says that nobody opened it. */
  room: RoomName | null;
  byItself: boolean;
  faults: ReadonlyMap<string, string>;
}

export const BenchContext = createContext<BenchState | null>(null);

export function useBench(): BenchState {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error("useBench stands outside of a bench");
  return bench;
}
