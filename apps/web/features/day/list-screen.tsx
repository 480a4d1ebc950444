import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { FormulaSummary, PlanRequest, StoredOven } from "@uprise/contract";
import { type Href, useRouter } from "expo-router";
import { useRef } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Link } from "../../ui/link";
import { Button } from "../../ui/press";
import { Empty, Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Lead, Small, Title } from "../../ui/words";
import { newId, wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useFormulas, useOvenList } from "../wire/queries";
import { clockOf, dateOf, dayWords, isoFrom, isoHere } from "./times";
import { usePlans } from "./use-day";
import { daysLater } from "../../ui/dates";

/** A day to begin with: tomorrow at half past five, one bake, the kitchen's ovens. */
export function freshDay(ovens: readonly StoredOven[], first: Pick<FormulaSummary, "id">): PlanRequest {
  const tomorrow = isoHere(daysLater(new Date(), 1));
  return {
    start: isoFrom(dateOf(tomorrow), "05:30", tomorrow) ?? tomorrow,
    bakes: [{ id: newId(), formulaId: first.id, batches: 1 }],
    ovens: ovens.map(ovenOfDay),
    hands: 1,
    mixers: 1,
  };
}

export const ovenOfDay = ({ id, oven }: StoredOven): PlanRequest["ovens"][number] => ({ id, ...oven, racks: oven.racks ?? 2 });

/** Days that are planned, the newest first. */
export function DaysScreen() {
  const router = useRouter();
  const colours = useColours();
  const queries = useQueryClient();
  const { data: plans, error, refetch } = usePlans();
  const { data: formulas } = useFormulas("");
  const { ovens = [] } = useOvenList();
  const first = formulas?.pages[0]?.items[0];
  const id = useRef(newId());
  useTitle("Days");
  const begin = useMutation({
    mutationFn: (from: FormulaSummary) => wire.createPlan({ id: id.current, title: "A baking day", day: freshDay(ovens, from) }),
    onSuccess: (saved) => {
      id.current = newId();
      void queries.invalidateQueries({ queryKey: keys.plans.all });
      router.navigate(`/day/${saved.id}` as Href);
    },
  });
  if (error && !plans) return <Failed title="The days did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!plans) return <Loading what="Fetching the days" />;
  return (
    <ScrollView contentContainerStyle={styles.page}>
      <Title>Days</Title>
      <View style={styles.tools}>
        <Button kind="main" disabled={!first || begin.isPending} onPress={() => first && begin.mutate(first)}>
          Plan a day
        </Button>
        <Button onPress={() => router.navigate("/counter" as Href)}>At the counter</Button>
      </View>
      {begin.error ? <Body tone="stop">{begin.error.message}</Body> : null}
      {plans.length === 0 ? (
        <Empty title="No day is planned yet.">
          <Body>A day is some bakes, the ovens and hands there are, and a time by which everything must be ready.</Body>
        </Empty>
      ) : (
        <View role="list" aria-label="Days">
          {plans.map((plan) => (
            <View key={plan.id} role="listitem" style={[styles.row, { borderBottomColor: colours.rule }]}>
              <Link to={`/day/${plan.id}`} style={styles.link}>
                <Lead>{plan.title}</Lead>
                <Small tone="faint">
                  {`${dayWords(plan.day.start)} from ${clockOf(plan.day.start)}, ${plan.day.bakes.length} ${plan.day.bakes.length === 1 ? "bake" : "bakes"}`}
                </Small>
              </Link>
            </View>
          ))}
        </View>
      )}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.l, maxWidth: 720, width: "100%" },
  tools: { flexDirection: "row", flexWrap: "wrap", gap: space.s },
  row: { borderBottomWidth: 1 },
  link: { paddingVertical: space.s },
});
