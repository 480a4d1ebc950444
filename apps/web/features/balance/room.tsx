import { useQuery } from "@tanstack/react-query";
import type { Allergen, Formula, FormulaComponent, Kitchen, Proposal, Proposals, Shelf } from "@uprise/core";
import { allergens, CoreError, openFormula } from "@uprise/core/page";
import { balanceWithout, swap } from "@uprise/core";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Check } from "../../ui/check";
import { Link } from "../../ui/link";
import { Failed, Loading } from "../../ui/state";
import { Body, Small } from "../../ui/words";
import { keys } from "../wire/keys";
import { listText } from "../instruments/sentences";
import { ProposalList } from "./proposals";

interface BalanceRoomProps {
  id: string;
  formula: Formula;
  /** Set when one ingredient is to be swapped; otherwise the whole is balanced. */
  replace: string | null;
  kitchen: Kitchen;
  /** Changes whenever something in the kitchen does. */
  stamp: string;
  tried: Proposal | null;
  onTry: (proposal: Proposal | null) => void;
  onTake: (proposal: Proposal) => void;
}

const diets: readonly Allergen[] = allergens.filter((a) => !["wheat", "rye", "barley"].includes(a));

/** Lets the screen draw once before a computation takes the thread. */
const afterPaint = (): Promise<void> => new Promise((done) => setTimeout(done, 30));

function compute(formula: Formula, replace: string | null, avoid: readonly Allergen[], kitchen: Kitchen): Proposals {
  const locked = formula.lines.flatMap((line) => (line.locked && line.ingredientId !== undefined ? [line.ingredientId] : []));
  const { shelf } = kitchen;
  const input = openFormula(formula, kitchen);
  return replace === null ? balanceWithout(input, { avoid, locked }, shelf) : swap(input, { replace }, { avoid, locked }, shelf);
}

/** “Balance it for me” and “swap it”: proposals to try on. Locks on the sheet and diets chosen here are respected. */
export function BalanceRoom({ id, formula, replace, kitchen, stamp, tried, onTry, onTake }: BalanceRoomProps) {
  const { shelf } = kitchen;
  const [avoid, setAvoid] = useState<Allergen[]>([]);
  const { data, error, isFetching } = useQuery({
    queryKey: keys.proposals.of(formula, stamp, replace, avoid),
    queryFn: async () => {
      await afterPaint();
      return compute(formula, replace, avoid, kitchen);
    },
    retry: false,
    staleTime: Infinity,
    gcTime: 60_000,
  });
  return (
    <View style={styles.room}>
      <Small tone="faint">
        {replace === null
          ? "The smallest changes that mend what is wrong, the gravest first, in amounts you can measure. Locked lines stay."
          : `What may stand in for ${shelf.get(replace)?.name.toLowerCase() ?? replace}, with its neighbours moved so that the rest stays where it was.`}
      </Small>
      {replace === null ? (
        <Link to={`/begin?from=${encodeURIComponent(id)}`}>
          <Body style={styles.link}>Design it anew from what is on hand</Body>
        </Link>
      ) : null}
      <View style={styles.diets} role="group" aria-label="Leave out">
        <Small tone="faint">Leave out</Small>
        {diets.map((allergen) => (
          <Check
            key={allergen}
            label={allergen}
            on={avoid.includes(allergen)}
            onChange={(on) => setAvoid(on ? [...avoid, allergen] : avoid.filter((a) => a !== allergen))}
          />
        ))}
      </View>
      {error ? (
        <Failed
          title="Nothing could be proposed."
          detail={error instanceof CoreError ? error.message : "The sheet could not be worked with."}
        />
      ) : null}
      {isFetching ? <Loading what="Looking for the smallest change" /> : null}
      {data && !isFetching ? (
        <>
          {data.without && data.without.length > 0 ? (
            <Body tone="caution">{`Without ${listText(data.without)}, which ${data.without.length === 1 ? "is" : "are"} still open on the sheet.`}</Body>
          ) : null}
          <Result
            data={data}
            replace={replace}
            tried={tried}
            shelf={shelf}
            components={formula.components ?? []}
            onTry={onTry}
            onTake={onTake}
          />
        </>
      ) : null}
    </View>
  );
}

function Result({
  data,
  replace,
  ...list
}: { data: Proposals; shelf: Shelf; components: readonly FormulaComponent[] } & Pick<
  BalanceRoomProps,
  "replace" | "tried" | "onTry" | "onTake"
>) {
  const { proposals, conflict, stillHolds = [] } = data;
  const held = stillHolds.map(({ ingredientId, allergens: its }) => `${list.shelf.get(ingredientId)?.name.toLowerCase() ?? ingredientId} (${its.join(", ")})`); // prettier-ignore
  const still = held.length > 0 ? <Body tone="stop">{`It still holds ${listText(held)}: nothing on the shelf stands in for ${held.length === 1 ? "it" : "them"}.`}</Body> : null; // prettier-ignore
  if (still && proposals.length === 0 && !conflict) return still;
  if (conflict || proposals.length > 0)
    return (
      <>
        {still}
        {conflict ? <Body tone="caution">{conflict.message}</Body> : null}
        {proposals.length > 0 ? <ProposalList proposals={proposals} {...list} /> : null}
      </>
    );
  return (
    <Body>
      {replace === null
        ? "Nothing is wrong with it; there is nothing to balance."
        : "Nothing on the shelf stands in for it under these conditions."}
    </Body>
  );
}

const styles = StyleSheet.create({
  link: { textDecorationLine: "underline" },
  room: { gap: space.m },
  diets: { flexDirection: "row", flexWrap: "wrap", alignItems: "center", columnGap: space.m },
});
