import type { SimulateOptions, Simulation, Start } from "@uprise/core";
import { useEffect, useId, useState } from "react";
import { ovenWorker } from "./oven-worker";

/** What a worker needs of a formula. */
export interface Bakeable {
  start: Start;
  massSpread: number;
}

export interface Baking<T> {
  /** The newest simulation that is here, and what it was made of. */
  simulation: Simulation | null;
  of: T | null;
  /** A newer one is on its way. */
  pending: boolean;
  /** Why the newest could not be computed; `simulation` is then null. */
  fault: string | null;
}

const nothing: Baking<never> = { simulation: null, of: null, pending: false, fault: null };

/** Bakes in the worker; the last answer stays until a newer one is here or fails. Give `ready` and `options` a stable identity. */
export function useSimulation<T extends Bakeable>(ready: T | null, options: SimulateOptions): Baking<T> {
  const channel = useId();
  const [answer, setAnswer] = useState<Baking<T>>(nothing);
  useEffect(() => {
    if (!ready) return;
    const { start, massSpread } = ready;
    ovenWorker.ask(
      channel,
      { do: "bake", start, massSpread, options },
      (simulation) => setAnswer({ simulation, of: ready, pending: false, fault: null }),
      // The bake of another oven is no stand-in for the one that failed.
      (fault) => setAnswer({ simulation: null, of: ready, pending: false, fault }),
    );
  }, [channel, ready, options]);
  useEffect(() => () => ovenWorker.cancel(channel), [channel]);
  return ready ? { ...answer, pending: answer.of !== ready } : nothing;
}
