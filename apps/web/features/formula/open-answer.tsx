import type { Edit, FormulaLine, Ingredient, Measures, Shelf, UsualAmount } from "@uprise/core";
import { gramsText } from "@uprise/core/page";
import { weighedIn } from "@uprise/core/page-bench";
import { useEffect, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { NameSearch } from "../../ui/name-search";
import { Button } from "../../ui/press";
import { Small } from "../../ui/words";
import { consistencyWord } from "../instruments/sentences";
import { useSearch } from "../wire/use-search";

interface OpenAnswerProps {
  line: FormulaLine;
  /** Null where it is not known. */
  ingredient: Ingredient | null;
  shelf: Shelf;
  measures: Measures;
  usual: (ingredientId: string) => Promise<UsualAmount[]>;
  edit: (edit: Edit) => void;
}

const whyText = ({ why }: UsualAmount): string =>
  "body" in why ? `the batter ${consistencyWord[why.body]}` : `usual, ${Math.round(why.usual * 10) / 10} % of the flour`;

/** An open line answered where it stands: what it is, how much of it, or that it stays out. */
export function OpenAnswer({ line, ingredient, shelf, measures, usual, edit }: OpenAnswerProps) {
  const [query, setQuery] = useState("");
  const found = useSearch(query, shelf, 5);
  const lineId = line.id;
  const wanted = ingredient && !line.grams && line.component === undefined ? ingredient.id : null;
  const [answer, setAnswer] = useState<{ of: string; offered: UsualAmount[] } | null>(null);
  useEffect(() => {
    if (wanted === null) return undefined;
    let here = true;
    void usual(wanted).then((offered) => here && setAnswer({ of: wanted, offered }));
    return () => {
      here = false;
    };
  }, [wanted, usual]);
  const offered = answer && answer.of === wanted ? answer.offered : [];
  const name = line.name ?? ingredient?.name ?? "this line";
  return (
    <View style={styles.answer} role="group" aria-label={`Answer ${name}`}>
      {ingredient ? null : (
        <NameSearch
          label={`“${name}” is not known here. It is`}
          query={query}
          onQuery={setQuery}
          found={found}
          onPick={(item) => {
            const known = shelf.get(item.id);
            const weighed = !line.grams && known && line.source ? weighedIn(line.source, known, measures) : null;
            edit({ edit: "set-ingredient", lineId, ingredientId: item.id });
            if (weighed) edit({ edit: "set-amount", lineId, ...weighed });
            setQuery("");
          }}
        />
      )}
      {offered.length > 0 ? <Small tone="faint">Type an amount above, or take</Small> : null}
      <View style={styles.offers}>
        {offered.map((one) => (
          <Button
            key={one.grams}
            label={`Take ${gramsText(one.grams)} of ${name}, ${whyText(one)}`}
            onPress={() =>
              edit({ edit: "set-amount", lineId, grams: { low: one.grams, mid: one.grams, high: one.grams }, unit: "g" })
            }
          >
            {`${gramsText(one.grams)}: ${whyText(one)}`}
          </Button>
        ))}
        <Button kind="quiet" label={`Leave out ${name}`} onPress={() => edit({ edit: "leave-out", lineId, off: true })}>
          Leave it out
        </Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  answer: { gap: space.xs, paddingLeft: 27 + space.m, paddingBottom: space.s },
  offers: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "center" },
});
