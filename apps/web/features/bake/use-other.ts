import type { Opened, Shelf, SimulateOptions, Simulation, WhatIf } from "@uprise/core";
import { CoreError, withWhatIf } from "@uprise/core/page";
import { ready } from "@uprise/core";
import { useMemo } from "react";
import { useSimulation } from "./use-simulation";

const quick: SimulateOptions = { spread: 0, frames: 14 };

/** The bake as it would be with a change; null without one. */
export function useOther(
  open: () => Opened,
  shelf: Shelf,
  change: WhatIf | null,
): { other: Simulation | null; pending: boolean; fault: string | null } {
  const made = useMemo(() => {
    if (!change) return null;
    try {
      return ready(withWhatIf(open(), change), shelf);
    } catch (error) {
      if (error instanceof CoreError) return null;
      throw error;
    }
  }, [open, shelf, change]);
  const { simulation, pending, fault } = useSimulation(made, quick);
  return { other: made ? simulation : null, pending, fault };
}
