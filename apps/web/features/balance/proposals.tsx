import type { FormulaComponent, Proposal, Readings, Shelf } from "@uprise/core";
import { eighthsText, gramsText } from "@uprise/core/page";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button } from "../../ui/press";
import { Body, Heading, Small } from "../../ui/words";
import { consistencyWord, minutesText } from "../instruments/sentences";
import { Table } from "../../ui/facts";

interface ProposalsProps {
  proposals: readonly Proposal[];
  tried: Proposal | null;
  shelf: Shelf;
  components: readonly FormulaComponent[];
  onTry: (proposal: Proposal | null) => void;
}

const whole = (value: number): string => `${Math.round(value)} %`;
const verdicts: Record<Readings["verdict"], string> = {
  balanced: "balanced",
  "short-of-acid": "short of acid",
  "acid-heavy": "acid over",
  "no-lift": "no lift",
};

/** The readings that a proposal moves, before and after; what stays is left out. */
function moved(before: Readings, after: Readings): { key: string; cells: string[] }[] {
  const rows: [string, string, string][] = [
    ["Lift", verdicts[before.verdict], verdicts[after.verdict]],
    ["Soda left", gramsText(before.residualSodaG), gramsText(after.residualSodaG)],
    ["Crumb pH", before.ph.mid.toFixed(1), after.ph.mid.toFixed(1)],
    ["Gas, mL/100 g", String(Math.round(before.gasMlPer100g)), String(Math.round(after.gasMlPer100g))],
    ["Batter", consistencyWord[before.consistency], consistencyWord[after.consistency]],
    ["Water", whole(before.waterPercent), whole(after.waterPercent)],
    ["Fat", whole(before.fatPercent), whole(after.fatPercent)],
    ["Sugar", whole(before.sugarPercent), whole(after.sugarPercent)],
    ["Binder", before.binderPercent.toFixed(1), after.binderPercent.toFixed(1)],
  ];
  return rows.filter(([, a, b]) => a !== b).map(([name, a, b]) => ({ key: name, cells: [name, a, b] }));
}

/** What its bake comes to, where it was baked. */
const bakedRows = ({ baked }: Proposal): { key: string; cells: string[] }[] =>
  baked
    ? [
        { key: "Minutes", cells: ["Minutes", minutesText(baked.before.minutes), minutesText(baked.after.minutes)] },
        { key: "Height", cells: ["Height", `${Math.round(baked.before.crownMm)} mm`, `${Math.round(baked.after.crownMm)} mm`] },
        { key: "Lost", cells: ["Water lost", whole(baked.before.lossPercent), whole(baked.after.lossPercent)] },
      ]
    : [];

/** Asked for again, a proposal is the same one by what it changes. */
const sameProposal = (a: Proposal, b: Proposal): boolean =>
  a === b || (a.title === b.title && JSON.stringify(a.changes) === JSON.stringify(b.changes));

/** Alternatives to try on and take off; nothing is kept until one is taken, at the bottom of the bench. */
export function ProposalList({ proposals, tried, shelf, components, onTry }: ProposalsProps) {
  const colours = useColours();
  return (
    <View role="list" style={styles.list}>
      {proposals.map((proposal) => {
        const on = tried !== null && sameProposal(tried, proposal);
        return (
          <View
            role="listitem"
            key={`${proposal.title}-${proposal.why}`}
            style={[styles.proposal, { borderLeftColor: on ? colours.heat : colours.rule }]}
          >
            <Heading level={3}>{proposal.title}</Heading>
            {proposal.changes.map((change) => (
              <Body key={`${change.component ?? ""} ${change.ingredientId}`} strong>
                {shelf.get(change.ingredientId)?.name ?? change.ingredientId}
                {change.component === undefined ? "" : `, ${nameIn(change.component, components)}`}: {changeText(change, shelf)}
              </Body>
            ))}
            <Small tone="faint">{proposal.why}</Small>
            {proposal.lost && proposal.lost.length > 0 ? <Body tone="caution">Not kept: {proposal.lost.join("; ")}</Body> : null}
            {proposal.allergensAdded.length > 0 ? (
              <Body tone="stop" strong>
                Brings {proposal.allergensAdded.join(", ")}.
              </Body>
            ) : null}
            {proposal.allergensRemoved.length > 0 ? (
              <Body tone="good">Free of {proposal.allergensRemoved.join(", ")} now.</Body>
            ) : null}
            {on || proposal.baked ? (
              <Table
                label={`What “${proposal.title}” moves`}
                head={["", "before", "after"]}
                rows={[...bakedRows(proposal), ...moved(proposal.before, proposal.after)]}
              />
            ) : null}
            <View style={styles.buttons}>
              <Button onPress={() => onTry(on ? null : proposal)} label={`${on ? "Take off" : "Try on"}: ${proposal.title}`}>
                {on ? "Take off" : "Try on"}
              </Button>
            </View>
          </View>
        );
      })}
    </View>
  );
}

const nameIn = (id: string, components: readonly FormulaComponent[]): string =>
  (components.find((component) => component.id === id)?.name ?? id).toLowerCase();

/** "14 g → 1.8 g", eggs by their number. */
function changeText({ ingredientId, fromG, toG }: Proposal["changes"][number], shelf: Shelf): string {
  const ingredient = shelf.get(ingredientId);
  const egg = ingredient?.family === "egg" ? ingredient.pieces?.[0]?.grams.mid : undefined;
  const text = (grams: number): string =>
    grams === 0 ? "none" : egg ? `${eighthsText(Math.round((2 * grams) / egg) / 2)} (${gramsText(grams)})` : gramsText(grams);
  return `${text(fromG)} → ${text(toG)}`;
}

const styles = StyleSheet.create({
  list: { gap: space.l },
  proposal: { borderLeftWidth: 5, paddingLeft: space.m, gap: space.xs },
  buttons: { flexDirection: "row", gap: space.s, paddingTop: space.xs },
});
