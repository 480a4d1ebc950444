import type { Plan } from "@uprise/core";
import { gramsText, ingredientOf, listWords, moneyText } from "@uprise/core/page";
import { neededFor, shoppingFor } from "@uprise/core/page-live";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { PaperPage, PaperTable, usePaper } from "../../ui/paper";
import { Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Small, Title } from "../../ui/words";
import { useOnHand } from "../wire/on-hand";
import { type KitchenHere, useKitchen, usePackets } from "../wire/queries";
import { Ribbon } from "./ribbon";
import { clockOf, dayWords, markOf } from "./times";
import { usePlan, usePlanned } from "./use-day";

/** A day on paper: what to do the evening before, what to weigh, what to buy, and the steps by the clock. */
export function DayPage({ id }: { id: string }) {
  const { data, error, refetch } = usePlan(id);
  const { data: plan, error: unplanned } = usePlanned(data?.day ?? null);
  const { kitchen } = useKitchen(null);
  const { said } = useOnHand();
  const [size, setSize] = usePaper();
  useTitle(data ? `${data.title}, on paper` : "A day to print");
  const failed = error ?? unplanned;
  if (failed) return <Failed title="This day did not come." detail={failed.message} onRetry={() => void refetch()} />;
  if (!data || !plan) return <Loading what="Planning the day" />;
  const mark = new Map(plan.bakes.map((bake, k) => [bake.id, markOf(k)]));
  return (
    <PaperPage size={size} onSize={setSize}>
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
            <PaperTable
              label="The evening before"
              head={["for", "what"]}
              rows={plan.evening.map((step) => ({ key: step.id, cells: [mark.get(step.bakeId) ?? "", step.words] }))}
            />
          </>
        ) : null}
        <Weigh plan={plan} kitchen={kitchen} there={said.there} mark={mark} />
        <Heading>By the clock</Heading>
        <PaperTable
          label="By the clock"
          head={["at", "for", "what"]}
          rows={plan.steps.map((step) => ({ key: step.id, cells: [clockOf(step.start), mark.get(step.bakeId) ?? "", step.words] }))}
        />
        <Heading>The ribbon</Heading>
        <Ribbon plan={plan} now={0} shown={null} onShow={() => undefined} />
      </View>
    </PaperPage>
  );
}

function Weigh({
  plan,
  kitchen,
  there,
  mark,
}: {
  plan: Plan;
  kitchen: KitchenHere;
  there: readonly string[];
  mark: ReadonlyMap<string, string>;
}) {
  const needed = neededFor(plan);
  const name = (id: string): string => (kitchen.shelf.get(id) ? ingredientOf(kitchen.shelf, id).name : id);
  const { data: stored = [] } = usePackets();
  const { buy, look, totals, unpriced } = shoppingFor(
    needed,
    stored.map(({ packet }) => packet),
    new Set(there),
  );
  const missing = unpriced.filter((id) => buy.some(({ ingredientId }) => ingredientId === id));
  return (
    <>
      <Heading>To weigh</Heading>
      <PaperTable
        label="To weigh"
        head={["weigh", "", "for"]}
        right={[0]}
        rows={needed.map(({ ingredientId, grams, of }) => ({ key: ingredientId, cells: [gramsText(grams), name(ingredientId), of.map((one) => `${mark.get(one.bakeId) ?? ""} ${one.batches > 1 ? `${one.batches} × ` : ""}${gramsText(one.grams)}`).join("   ")] }))}
      />
      <Heading>To buy</Heading>
      {buy.length === 0 ? <Body>Everything is on the shelf.</Body> : null}
      <PaperTable
        label="To buy"
        head={["buy", "", "packets"]}
        right={[0]}
        rows={buy.map(({ ingredientId, buyG, packets }) => ({ key: ingredientId, cells: [gramsText(buyG), name(ingredientId), packets ? `${packets.count} × ${gramsText(packets.sizeG)}   ${moneyText(packets.cost, packets.currency)}` : "no price"] }))}
      />
      {look.length > 0 ? (
        <Body>{`To look at, since no packet says how much is left: ${listWords(look.map(({ ingredientId, needG }) => `${name(ingredientId)} (${gramsText(needG)})`))}.`}</Body>
      ) : null}
      {totals.map(({ currency, toPay, used }) => (
        <Body key={currency}>{`To pay: ${moneyText(toPay, currency)}. The day itself uses up ${moneyText(used, currency)}.`}</Body>
      ))}
      {missing.length > 0 ? <Small tone="faint">{`Not in the sum, for want of a price: ${listWords(missing.map(name))}.`}</Small> : null}
      <Small tone="faint">
        What the packets of the store still hold is taken off; what has no packet is bought, unless it was ticked as on hand at “Design a formula”.
      </Small>
    </>
  ); // prettier-ignore
}

const styles = StyleSheet.create({
  page: { gap: space.s, width: "100%" },
});
