import { gramsText, ingredientOf, listWords, moneyText, neededFor, type Plan, shoppingFor } from "@uprise/core";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button } from "../../ui/press";
import { Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Small, Title } from "../../ui/words";
import { useTicked } from "../design/kept";
import { type KitchenHere, useKitchen, usePackets } from "../wire/queries";
import { Ribbon } from "./ribbon";
import { clockOf, dayWords, markOf } from "./times";
import { usePlan, usePlanned } from "./use-day";

/** A day on paper: what to do the evening before, what to weigh, what to buy, and the steps by the clock. */
export function DayPage({ id }: { id: string }) {
  const { data, error, refetch } = usePlan(id);
  const { data: plan, error: unplanned } = usePlanned(data?.day ?? null);
  const { kitchen } = useKitchen(null);
  const { ticked } = useTicked();
  useTitle(data ? `${data.title}, on paper` : "A day to print");
  const failed = error ?? unplanned;
  if (failed) return <Failed title="This day did not come." detail={failed.message} onRetry={() => void refetch()} />;
  if (!data || !plan) return <Loading what="Planning the day" />;
  const mark = new Map(plan.bakes.map((bake, k) => [bake.id, markOf(k)]));
  return (
    <View style={styles.page}>
      <Title>{data.title}</Title>
      <Body>{`${dayWords(data.day.start)}, hands from ${clockOf(data.day.start)}, done by ${clockOf(plan.end)}.`}</Body>
      {plan.bakes.map((bake, k) => (
        <Body
          key={bake.id}
        >{`${markOf(k)}  ${bake.title}: ${bake.batches} × ${bake.piecesABatch}, ready ${clockOf(bake.ready)}`}</Body>
      ))}
      {plan.evening.length > 0 ? (
        <>
          <Heading>The evening before</Heading>
          {plan.evening.map((step) => (
            <Line key={step.id} at="" words={`${mark.get(step.bakeId) ?? ""}: ${step.words}`} />
          ))}
        </>
      ) : null}
      <Weigh plan={plan} kitchen={kitchen} ticked={ticked} mark={mark} />
      <Heading>By the clock</Heading>
      {plan.steps.map((step) => (
        <Line key={step.id} at={clockOf(step.start)} words={`${mark.get(step.bakeId) ?? ""}: ${step.words}`} />
      ))}
      <Heading>The ribbon</Heading>
      <Ribbon plan={plan} now={0} shown={null} onShow={() => undefined} />
      <View style={styles.screenOnly} testID="print-tools">
        <Button kind="main" onPress={() => globalThis.print()}>
          Print
        </Button>
      </View>
    </View>
  );
}

function Weigh({
  plan,
  kitchen,
  ticked,
  mark,
}: {
  plan: Plan;
  kitchen: KitchenHere;
  ticked: readonly string[];
  mark: ReadonlyMap<string, string>;
}) {
  const needed = neededFor(plan);
  const name = (id: string): string => (kitchen.shelf.get(id) ? ingredientOf(kitchen.shelf, id).name : id);
  const { data: stored = [] } = usePackets();
  const { buy, totals, unpriced } = shoppingFor(
    needed,
    stored.map(({ packet }) => packet),
    new Set(ticked),
  );
  const missing = unpriced.filter((id) => buy.some(({ ingredientId }) => ingredientId === id));
  return (
    <>
      <Heading>To weigh</Heading>
      <View role="table" aria-label="To weigh">
        {needed.map(({ ingredientId, grams, of }) => (
          <Row key={ingredientId} mass={gramsText(grams)} words={name(ingredientId)} more={of.map((one) => `${mark.get(one.bakeId) ?? ""} ${one.batches > 1 ? `${one.batches} × ` : ""}${gramsText(one.grams)}`).join("   ")} />
        ))}
      </View>
      <Heading>To buy</Heading>
      {buy.length === 0 ? <Body>Everything is on the shelf.</Body> : null}
      <View role="table" aria-label="To buy">
        {buy.map(({ ingredientId, buyG, packets }) => (
          <Row key={ingredientId} mass={gramsText(buyG)} words={name(ingredientId)} more={packets ? `${packets.count} × ${gramsText(packets.sizeG)}   ${moneyText(packets.cost, packets.currency)}` : "no price"} />
        ))}
      </View>
      {totals.map(({ currency, toPay, used }) => (
        <Body key={currency}>{`To pay: ${moneyText(toPay, currency)}. The day itself uses up ${moneyText(used, currency)}.`}</Body>
      ))}
      {missing.length > 0 ? <Small tone="faint">{`Not in the sum, for want of a price: ${listWords(missing.map(name))}.`}</Small> : null}
      <Small tone="faint">
        What the packets of the store still hold is taken off; where they do not say, what is ticked as on hand at “Design a formula” is taken to be
        enough.
      </Small>
    </>
  ); // prettier-ignore
}

function Row({ mass, words, more }: { mass: string; words: string; more: string }) {
  const colours = useColours();
  return (
    <View role="row" style={[styles.line, { borderBottomColor: colours.rule }]}>
      <View role="cell" style={styles.mass}>
        <Body strong style={styles.figure}>
          {mass}
        </Body>
      </View>
      <View role="cell" style={styles.grow}>
        <Body>{words}</Body>
      </View>
      <View role="cell">
        <Small tone="faint">{more}</Small>
      </View>
    </View>
  );
}

function Line({ at, words }: { at: string; words: string }) {
  const colours = useColours();
  return (
    <View style={[styles.line, { borderBottomColor: colours.rule }]}>
      <Body strong style={styles.at}>
        {at}
      </Body>
      <Body style={styles.grow}>{words}</Body>
    </View>
  );
}

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.s, maxWidth: 720, width: "100%" },
  line: { flexDirection: "row", gap: space.m, borderBottomWidth: 1, minHeight: 30, alignItems: "center" },
  mass: { width: 80 },
  at: { width: 56, fontVariant: ["tabular-nums"] },
  figure: { textAlign: "right", fontVariant: ["tabular-nums"] },
  grow: { flex: 1, minWidth: 0 },
  screenOnly: { alignSelf: "flex-start" },
});
