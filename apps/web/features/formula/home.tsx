import { type Href, useRouter } from "expo-router";
import { type ReactNode, useEffect } from "react";
import { Failed, Loading } from "../../ui/state";
import { useFormulas } from "../wire/queries";
import { lastOpened } from "./draft";

/** The bench opens with what was last on it, with the newest formula, or, in an empty kitchen, with `empty`. */
export function BenchHome({ empty }: { empty: ReactNode }) {
  const router = useRouter();
  const { data, error, refetch } = useFormulas("");
  const kept = lastOpened();
  const items = data?.pages[0]?.items;
  const there = items?.find((item) => item.id === kept) ?? items?.[0];
  const target = there?.id ?? null;
  useEffect(() => {
    if (target !== null) router.replace(`/bench/${target}` as Href);
  }, [router, target]);
  if (error && !data) return <Failed title="The kitchen does not answer." detail={error.message} onRetry={() => void refetch()} />;
  if (!data || target !== null) return <Loading what="Laying the bench" />;
  return <>{empty}</>;
}
