import type { Opened, Shelf, SimulateOptions, Simulation, WhatIf } from "@uprise/core";
import { ownOf, withWhatIf } from "@uprise/core/page";
import { useMemo } from "react";
import { useAsked } from "../../device/use-asked";
import { opened } from "../../device/opened";

const quick: SimulateOptions = { spread: 0, frames: 14 };

/** The bake as it would be with a change; null without one. */
export function useOther(
  open: () => Opened,
  shelf: Shelf,
  change: WhatIf | null,
): { other: Simulation | null; pending: boolean; fault: string | null } {
  const input = useMemo(() => (change ? opened(() => withWhatIf(open(), change)).input : null), [open, change]);
  const { data, pending, fault } = useAsked("simulate", input ? [input, ownOf(shelf), quick] : null);
  return { other: data, pending, fault: fault && fault.code === null ? fault.message : null };
}
