import type { Allergen, Formula, FormulaComponent, Kitchen, Proposal, Proposals, Shelf, WholeWish } from "@uprise/core";
import { allergens, openFormula, ownOf } from "@uprise/core/page";
import { wholeWishes, wishWords } from "@uprise/core/page-bench";
import { useMemo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Check } from "../../ui/check";
import { Choice } from "../../ui/choice";
import { Link } from "../../ui/link";
import { Failed, Loading } from "../../ui/state";
import { Body, Small } from "../../ui/words";
import { listText } from "../instruments/sentences";
import { useOnHand } from "../wire/on-hand";
import { usePackets } from "../wire/queries";
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
}

const diets: readonly Allergen[] = allergens.filter((a) => !["wheat", "rye", "barley"].includes(a));

type Wished = "mend" | WholeWish;
const wishes: { value: Wished; label: string }[] = [
  { value: "mend", label: "Mend what is wrong" },
  ...wholeWishes.map((value) => ({ value, label: wishWords[value] })),
];

/** The list that was there before, as long as the same things are on it. */
function useSame(list: readonly string[]): readonly string[] {
  const key = list.join("\n");
  return useMemo(() => (key === "" ? [] : key.split("\n")), [key]);
}

/** What is left out of each formula, as long as the page is open: it is ticked once for all of its lines. */
const leftOut = new Map<string, Allergen[]>();
function useLeaveOut(id: string): [Allergen[], (avoid: Allergen[]) => void] {
  const [avoid, setAvoid] = useState(() => leftOut.get(id) ?? []);
  return [
    avoid,
    (next) => {
      leftOut.set(id, next);
      setAvoid(next);
    },
  ];
}

/** “Balance it for me” and “swap it”: proposals to try on. Locks on the sheet and diets chosen here are respected. */
export function BalanceRoom({ id, formula, replace, kitchen, tried, onTry }: BalanceRoomProps) {
  const { shelf } = kitchen;
  const [avoid, setAvoid] = useLeaveOut(id);
  const own = ownOf(shelf);
  const { input } = useMemo(() => opened(() => openFormula(formula, kitchen)), [formula, kitchen]);
  const locked = useMemo(
    () => formula.lines.flatMap((line) => (line.locked && line.ingredientId !== undefined ? [line.ingredientId] : [])),
    [formula.lines],
  );
  const [wish, setWish] = useState<Wished>("mend");
  const { ticked } = useOnHand();
  const { data: stored } = usePackets();
  // A new array for the same things would be another question.
  const onHand = useSame(ticked);
  const packets = useMemo(() => (stored ?? []).map(({ packet }) => packet), [stored]);
  const whole = input && replace === null ? input : null;
  const balanced = useAsked("balance", whole && wish === "mend" ? [whole, own, avoid, locked] : null);
  const wished = useAsked("wished", whole && wish !== "mend" ? [whole, own, wish, avoid, locked, onHand, packets] : null);
  const swapped = useAsked("swap", input && replace !== null ? [input, own, replace, avoid, locked] : null);
  const { data, fault, pending } = replace !== null ? swapped : wish === "mend" ? balanced : wished;
  const leaveOut = (
    <View style={styles.diets} role="group" aria-label="Leave out">
      <Small tone="faint">{replace === null ? "And leave out" : "Leave out"}</Small>
      {diets.map((allergen) => (
        <Check
          key={allergen}
          label={allergen}
          on={avoid.includes(allergen)}
          onChange={(on) => setAvoid(on ? [...avoid, allergen] : avoid.filter((a) => a !== allergen))}
        />
      ))}
    </View>
  );
  return (
    <View style={styles.room}>
      <Small tone="faint">
        {replace === null
          ? wish !== "mend"
            ? "One proposal with all its changes, baked and judged beside the present one. Locked lines stay."
            : "The smallest changes that mend what is wrong, the gravest first, in amounts you can measure. Locked lines stay."
          : `What may stand in for ${shelf.get(replace)?.name.toLowerCase() ?? replace}, with its neighbours moved so that the rest stays where it was.`}
      </Small>
      {replace === null ? (
        <Choice
          label="The whole formula"
          options={wishes}
          value={wish}
          onChange={(next) => {
            onTry(null);
            setWish(next);
          }}
        />
      ) : null}
      {replace === null ? null : leaveOut}
      {fault ? <Failed title="Nothing could be proposed." detail={fault.message} /> : null}
      {pending ? <Loading what="Looking for the smallest change" /> : null}
      {data && !pending ? (
        <>
          {data.without && data.without.length > 0 ? (
            <Body tone="caution">{`Without ${listText(data.without)}, which ${data.without.length === 1 ? "is" : "are"} still open on the sheet.`}</Body>
          ) : null}
          <Result data={data} replace={replace} tried={tried} shelf={shelf} components={formula.components ?? []} onTry={onTry} />
        </>
      ) : null}
      {replace === null ? leaveOut : null}
      {replace === null ? (
        <Link to={`/begin?from=${encodeURIComponent(id)}`}>
          <Body style={styles.link}>Design it anew from what is on hand</Body>
        </Link>
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
  "replace" | "tried" | "onTry"
>) {
  const { proposals, conflict, stillHolds = [] } = data;
  const held = stillHolds.map(({ ingredientId, allergens: its }) => `${list.shelf.get(ingredientId)?.name.toLowerCase() ?? ingredientId}${its.length > 0 ? ` (${its.join(", ")})` : ""}`); // prettier-ignore
  const isLocked = stillHolds.every(({ locked }) => locked === true);
  const why = isLocked ? `${held.length === 1 ? "its line is" : "their lines are"} locked` : `nothing on the shelf stands in for ${held.length === 1 ? "it" : "them"}${stillHolds.some(({ locked }) => locked) ? ", or it is locked" : ""}`; // prettier-ignore
  const still = held.length > 0 ? <Body tone="stop">{`It still holds ${listText(held)}: ${why}.`}</Body> : null;
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
