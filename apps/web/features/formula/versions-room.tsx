import type { FormulaVersion } from "@uprise/contract";
import type { Edit, Formula, Kitchen } from "@uprise/core";
import { differencesOf, nestedId, openFormula } from "@uprise/core/page";
import { useCallback, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Choice } from "../../ui/choice";
import { Button, Press } from "../../ui/press";
import { Failed, Loading } from "../../ui/state";
import { Body, Small } from "../../ui/words";
import { useBaked } from "../bake/use-baked";
import { figureOf, instrumentNames, instrumentTitle } from "../instruments/sentences";
import { useVersions } from "../wire/queries";
import { Table } from "../../ui/facts";
import { dayOfYearClock } from "../../ui/dates";

/** The four readings of a formula, its bake simulated as soon as it is; dashes where it cannot be read. */
function useFigures(formula: Formula, kitchen: Kitchen): string[] {
  const make = useCallback(() => openFormula(formula, kitchen), [formula, kitchen]);
  const { analysis } = useBaked(make, kitchen.shelf);
  return instrumentNames.map((name) => (analysis ? figureOf(name, analysis) : "–"));
}

/** Every version with its reason; one against the bench or against another version, in amounts and readings; any can be taken up again. */
export function VersionsRoom({
  id,
  formula,
  kitchen,
  edit,
}: {
  id: string;
  formula: Formula;
  kitchen: Kitchen;
  edit: (edit: Edit) => void;
}) {
  const colours = useColours();
  const { data, error, refetch } = useVersions(id);
  const [chosen, setChosen] = useState<number | null>(null);
  if (error && !data) return <Failed title="The versions did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data) return <Loading what="Fetching the versions" />;
  return (
    <View role="list">
      {data.map((version) => {
        const open = chosen === version.number;
        return (
          <View role="listitem" key={version.number} style={[styles.version, { borderBottomColor: colours.rule }]}>
            <Press onPress={() => setChosen(open ? null : version.number)} aria-expanded={open}>
              <Body strong>Version {version.number}</Body>
              <Small tone="faint">
                {dayOfYearClock(new Date(version.savedAt))}
                {version.reason ? `: ${version.reason}` : ""}
              </Small>
            </Press>
            {open ? (
              <Compared
                version={version}
                others={data}
                bench={formula}
                kitchen={kitchen}
                onTake={() => edit({ edit: "take-version", formula: version.formula, number: version.number })}
              />
            ) : null}
          </View>
        );
      })}
    </View>
  );
}

const BENCH = "bench";

interface ComparedProps {
  version: FormulaVersion;
  others: readonly FormulaVersion[];
  bench: Formula;
  kitchen: Kitchen;
  onTake: () => void;
}

/** Two versions side by side, or one and the bench: what changed in amounts and in every reading. */
function Compared({ version, others, bench, kitchen, onTake }: ComparedProps) {
  const [against, setAgainst] = useState(BENCH);
  const other = others.find(({ number }) => String(number) === against);
  const then = version.formula;
  const now = other?.formula ?? bench;
  const differences = differencesOf(
    then,
    now,
    (id) => kitchen.shelf.get(id)?.name ?? kitchen.book(nestedId(id) ?? "")?.title ?? id,
  );
  const before = useFigures(then, kitchen);
  const after = useFigures(now, kitchen);
  const choice =
    others.length > 1 ? (
      <Choice
        label="Side by side with"
        options={[
          { value: BENCH, label: "The bench" },
          ...others
            .filter(({ number }) => number !== version.number)
            .slice(0, 8)
            .map(({ number }) => ({ value: String(number), label: `Version ${number}` })),
        ]}
        value={other ? against : BENCH}
        onChange={setAgainst}
      />
    ) : null;
  const name = other ? `version ${other.number}` : "the bench";
  if (differences.length === 0) {
    return (
      <View style={styles.compared}>
        {choice}
        <Body>{other ? `Version ${other.number} is the same.` : "This is what is on the bench."}</Body>
      </View>
    );
  }
  return (
    <View style={styles.compared}>
      {choice}
      <Table
        label="What changed since"
        head={["", `version ${version.number}`, name]}
        rows={[
          ...differences.map((d) => ({ key: d.what, cells: [d.what, d.before, d.after] })),
          ...instrumentNames.map((reading, i) => ({
            key: reading,
            strong: before[i] !== after[i],
            cells: [instrumentTitle[reading], before[i] ?? "–", after[i] ?? "–"],
          })),
        ]}
      />
      <Button onPress={onTake}>Take this one up again</Button>
    </View>
  );
}

const styles = StyleSheet.create({
  version: { borderBottomWidth: 1, paddingVertical: space.xs },
  compared: { gap: space.s, paddingBottom: space.m },
});
