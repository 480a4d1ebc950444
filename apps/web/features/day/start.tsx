import type { PlanRequest } from "@uprise/contract";
import type { Plan } from "@uprise/core";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Body, Heading, Small } from "../../ui/words";
import { BeginBake } from "../instruments/begin-bake";
import { clockOf, markOf } from "./times";

/** The batches of the day in the order in which hands begin them, each to be begun at the counter. */
export function StartBakes({ plan, day, planId }: { plan: Plan; day: PlanRequest; planId: string }) {
  const batches = [...new Set(plan.steps.map(({ bakeId, batch }) => `${bakeId} ${batch}`))].flatMap((key) => {
    const [bakeId, number] = key.split(" ");
    const asked = day.bakes.find(({ id }) => id === bakeId);
    const index = plan.bakes.findIndex(({ id }) => id === bakeId);
    const bake = plan.bakes[index];
    const first = plan.steps.find((step) => step.bakeId === bakeId && step.batch === Number(number));
    const inOven = plan.steps.find((step) => step.bakeId === bakeId && step.batch === Number(number) && step.kind === "bake");
    return asked?.formulaId !== undefined && bake && first ? [{ key, bake, index, batch: Number(number), formulaId: asked.formulaId, at: first.start, ovenId: inOven?.resources[0] }] : []; // prettier-ignore
  });
  return (
    <View style={styles.start}>
      <Heading>At the counter</Heading>
      {batches.map(({ key, bake, index, batch, formulaId, at, ovenId }) => (
        <View key={key} style={styles.batch}>
          <Body style={styles.grow}>{`${clockOf(at)}  ${markOf(index)}  ${bake.title}${bake.batches > 1 ? `, ${batch} of ${bake.batches}` : ""}`}</Body>
          <BeginBake formulaId={formulaId} title={bake.batches > 1 ? `${bake.title}, ${batch} of ${bake.batches}` : bake.title} planId={planId} planBakeId={bake.id} batch={batch} {...(ovenId !== undefined && ovenId !== "hob" ? { ovenId } : {})} />
        </View>
      ))}
      <Small tone="faint">A rehearsal runs sixty times faster, with the stand-ins of the store.</Small>
    </View>
  ); // prettier-ignore
}

const styles = StyleSheet.create({
  start: { gap: space.s },
  batch: { flexDirection: "row", alignItems: "center", gap: space.m, flexWrap: "wrap" },
  grow: { flex: 1, minWidth: 200 },
});
