import { startTransition, useEffect, useId, useMemo, useState } from "react";
import type { Args, Fault, Outcome, Result, TaskName } from "../workers/tasks";
import { askOn, here } from "./workers";

export interface Asked<N extends TaskName> {
  /** The newest answer that is here; it stays until there is a newer one, or what was asked fails. */
  data: Result<N> | null;
  /** What it is the answer to. */
  of: Args<N> | null;
  /** It answers what is asked now. */
  current: boolean;
  /** An answer is on its way. */
  pending: boolean;
  /** Why there is none. */
  fault: Fault | null;
}

const same = (a: readonly unknown[] | null, b: readonly unknown[] | null): boolean =>
  a === b || (a !== null && b !== null && a.length === b.length && a.every((one, k) => Object.is(one, b[k])));

interface Answer<N extends TaskName> {
  of: Args<N>;
  outcome: Outcome<N>;
}

function told<N extends TaskName>(asked: Args<N> | null, answer: Answer<N> | null): Asked<N> {
  const current = asked !== null && answer !== null && answer.of === asked;
  const outcome = answer?.outcome ?? null;
  const data = asked !== null && outcome && "result" in outcome ? outcome.result : null;
  return {
    data,
    of: data === null ? null : (answer?.of ?? null),
    current,
    pending: asked !== null && !current,
    fault: current && outcome && "fault" in outcome ? outcome.fault : null,
  };
}

/** Asks a worker, again whenever one of the arguments is another one; null asks nothing. Give the arguments a stable identity. */
export function useAsked<N extends TaskName>(name: N, args: Args<N> | null): Asked<N> {
  const channel = useId();
  const [asked, setAsked] = useState(args);
  if (!same(asked, args)) setAsked(args);
  const [answer, setAnswer] = useState<Answer<N> | null>(null);
  const local = here();
  const now = useMemo(
    (): Answer<N> | null => (local && asked ? { of: asked, outcome: local(name, asked) } : null),
    [local, name, asked],
  );
  useEffect(() => {
    if (!asked || local) return;
    // An answer is drawn in slices: what is typed meanwhile goes first.
    return askOn(channel, name, asked, (outcome) => startTransition(() => setAnswer({ of: asked, outcome })));
  }, [channel, name, asked, local]);
  return useMemo(() => told(asked, local ? now : answer), [asked, local, now, answer]);
}
