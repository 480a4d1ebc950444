import { readings, differencesOf, type Formula, type Shelf } from "@uprise/core";
import { format } from "date-fns";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button, Press } from "../../ui/press";
import { Failed, Loading } from "../../ui/state";
import { Body, Small } from "../../ui/words";
import { figureOf, instrumentNames, instrumentTitle } from "../instruments/sentences";
import { useVersions } from "../wire/queries";
import { Table } from "./facts";

/** The four readings of a formula, or dashes where it cannot be read. */
function figuresFor(formula: Formula, shelf: Shelf): string[] {
  try {
    const analysis = readings(formula, shelf);
    return instrumentNames.map((name) => figureOf(name, analysis));
  } catch {
    return instrumentNames.map(() => "–");
  }
}

/** Every version with its reason; one against what is on the bench, in amounts and readings; any can be taken up again. */
export function VersionsRoom({
  id,
  formula,
  shelf,
  onTake,
}: {
  id: string;
  formula: Formula;
  shelf: Shelf;
  onTake: (formula: Formula) => void;
}) {
  const colours = useColours();
  const { data, error, refetch } = useVersions(id);
  const [chosen, setChosen] = useState<number | null>(null);
  if (error) return <Failed title="The versions did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data) return <Loading what="Fetching the versions" />;
  return (
    <View role="list">
      {data.items.map((version) => {
        const open = chosen === version.number;
        return (
          <View role="listitem" key={version.number} style={[styles.version, { borderBottomColor: colours.rule }]}>
            <Press onPress={() => setChosen(open ? null : version.number)} aria-expanded={open}>
              <Body strong>Version {version.number}</Body>
              <Small tone="faint">
                {format(new Date(version.savedAt), "d MMM yyyy, HH:mm")}
                {version.reason ? `: ${version.reason}` : ""}
              </Small>
            </Press>
            {open ? <Compared then={version.formula} now={formula} shelf={shelf} onTake={() => onTake(version.formula)} /> : null}
          </View>
        );
      })}
    </View>
  );
}

function Compared({ then, now, shelf, onTake }: { then: Formula; now: Formula; shelf: Shelf; onTake: () => void }) {
  const differences = differencesOf(then, now, (id) => shelf.get(id)?.name ?? id);
  const before = figuresFor(then, shelf);
  const after = figuresFor(now, shelf);
  if (differences.length === 0) return <Body style={styles.same}>This is what is on the bench.</Body>;
  return (
    <View style={styles.compared}>
      <Table
        label="What changed since"
        head={["", "then", "now"]}
        rows={[
          ...differences
            .filter((d) => d.what !== "Pan" && d.what !== "Notes")
            .map((d) => ({ key: d.what, cells: [d.what, d.before, d.after] })),
          ...instrumentNames.map((name, i) => ({
            key: name,
            strong: before[i] !== after[i],
            cells: [instrumentTitle[name], before[i] ?? "–", after[i] ?? "–"],
          })),
        ]}
      />
      {differences.some((d) => d.what === "Pan") ? <Small tone="faint">The pan is another one.</Small> : null}
      {differences.some((d) => d.what === "Notes") ? <Small tone="faint">The notes differ.</Small> : null}
      <Button onPress={onTake}>Take this one up again</Button>
    </View>
  );
}

const styles = StyleSheet.create({
  version: { borderBottomWidth: 1, paddingVertical: space.xs },
  compared: { gap: space.s, paddingBottom: space.m },
  same: { paddingBottom: space.m },
});
