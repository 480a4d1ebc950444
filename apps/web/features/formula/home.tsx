import { type Href, Redirect } from "expo-router";
import type { ReactNode } from "react";
import { Failed, Loading } from "../../ui/state";
import { WireError } from "../wire/client";
import { useFormula, useFormulas } from "../wire/queries";
import { lastOpened } from "./draft";

const LAYING = "Laying the bench";
const SILENT = "The kitchen does not answer.";

/** The bench opens with what was last on it on this device; before anything was, and where it is gone, with `first`. */
export function BenchHome({ first }: { first: ReactNode }) {
  const kept = lastOpened();
  return kept === null ? <>{first}</> : <Last id={kept} first={first} />;
}

/** That formula itself is asked, not a list that may be of before it came or that it is not on the first page of. */
function Last({ id, first }: { id: string; first: ReactNode }) {
  const { data, error, refetch } = useFormula(id);
  if (data) return <Redirect href={`/bench/${id}` as Href} />;
  if (error instanceof WireError && error.status === 404) return <Newest first={first} />;
  if (error) return <Failed title={SILENT} detail={error.message} onRetry={() => void refetch()} />;
  return <Loading what={LAYING} />;
}

function Newest({ first }: { first: ReactNode }) {
  const { data, error, refetch } = useFormulas("");
  const newest = data?.pages[0]?.items[0];
  if (newest) return <Redirect href={`/bench/${newest.id}` as Href} />;
  if (error && !data) return <Failed title={SILENT} detail={error.message} onRetry={() => void refetch()} />;
  return data ? <>{first}</> : <Loading what={LAYING} />;
}
