import type { Allergen, Formula, FormulaComponent, Kitchen, Proposal, Proposals, Shelf } from "@uprise/core";
import { allergens, openFormula, ownOf } from "@uprise/core/page";
import { useMemo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Check } from "../../ui/check";
import { Link } from "../../ui/link";
import { Failed, Loading } from "../../ui/state";
import { Body, Small } from "../../ui/words";
import { listText } from "../instruments/sentences";
import { ProposalList } from "./proposals";
import { useAsked } from "../../device/use-asked";
import { opened } from "../../device/opened";

interface BalanceRoomProps {
  id: string;
  formula: Formula;
  /** Set when one ingredient is to be swapped; otherwise the whole is balanced. */
  replace: string | null;
  kitchen: Kitchen;
  tried: Proposal | null;
  onTry: (proposal: Proposal | null) => void;
  onTake: (proposal: Proposal) => void;
}

const diets: readonly Allergen[] = allergens.filter((a) => !["wheat", "rye", "barley"].includes(a));

/** “Balance it for me” and “swap it”: proposals to try on. Locks on the sheet and diets chosen here are respected. */
export function BalanceRoom({ id, formula, replace, kitchen, tried, onTry, onTake }: BalanceRoomProps) {
  const { shelf } = kitchen;
  const [avoid, setAvoid] = useState<Allergen[]>([]);
  const own = ownOf(shelf);
  const { input } = useMemo(() => opened(() => openFormula(formula, kitchen)), [formula, kitchen]);
  const locked = useMemo(
    () => formula.lines.flatMap((line) => (line.locked && line.ingredientId !== undefined ? [line.ingredientId] : [])),
    [formula.lines],
  );
  const balanced = useAsked("balance", input && replace === null ? [input, own, avoid, locked] : null);
  const swapped = useAsked("swap", input && replace !== null ? [input, own, replace, avoid, locked] : null);
  const { data, fault, pending } = replace === null ? balanced : swapped;
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
      {fault ? <Failed title="Nothing could be proposed." detail={fault.message} /> : null}
      {pending ? <Loading what="Looking for the smallest change" /> : null}
      {data && !pending ? (
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
