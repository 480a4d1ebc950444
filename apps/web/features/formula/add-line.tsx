import type { FormulaLine, Line, Measures, Range, Shelf } from "@uprise/core";
import { formulaLineId, ownOf } from "@uprise/core/page";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { NameSearch } from "../../ui/name-search";
import { Button } from "../../ui/press";
import { newId } from "../wire/client";
import { useFormulas } from "../wire/queries";
import { useAsked } from "../../device/use-asked";
import { useSearch } from "../wire/use-search";

interface AddLineProps {
  measures: Measures;
  shelf: Shelf;
  /** The formula that is being written, which cannot hold itself. */
  self?: string;
  label?: string;
  onAdd: (line: FormulaLine) => void;
}

const lineId = (): string => `l-${newId().slice(0, 13)}`;

/** A line added as it would be written in a recipe: “2 tsp baking powder”, or a name to pick, which is open until it is weighed. */
export function AddLine({ measures, shelf, self, label = "Add a line", onAdd }: AddLineProps) {
  const { data } = useFormulas("");
  const [text, setText] = useState("");
  const asked = useAsked("line", text.trim() === "" ? null : [text, measures, ownOf(shelf)]);
  const line = asked.current ? asked.data : null;
  const whole = line?.ingredientId && line.grams ? line : null;
  const add = (ingredientId: string, grams: Range | null, from?: Line | null): void => {
    onAdd({
      id: lineId(),
      ingredientId,
      ...(grams ? { grams } : {}),
      ...(from?.unit ? { unit: from.unit } : {}),
      ...(from?.filling ? { filling: from.filling } : {}),
    });
    setText("");
  };
  const known = whole?.ingredientId ? shelf.get(whole.ingredientId) : undefined;
  const words = text.replace(/^[\d\s./½¼¾⅓⅔,]+(?:g|kg|ml|cups?|tbsp|tsp|oz|lb)?\b/i, "");
  const wanted = words.trim().toLowerCase();
  const formulas = (data?.pages.flatMap((page) => page.items) ?? [])
    .filter((item) => item.id !== self && wanted.length > 1 && item.title.toLowerCase().includes(wanted))
    .slice(0, 3)
    .map((item) => ({ id: formulaLineId(item.id), name: item.title, aliases: ["a formula of yours"] }));
  const found = useSearch(known ? "" : words, shelf, 6);
  const ingredients = known ? [] : found;
  const unknown = line && line.ingredientId === null && ingredients.length + formulas.length === 0 ? line : null;
  const addWhole = (): void => {
    if (known && whole?.grams) add(known.id, whole.grams, whole);
  };
  return (
    <View style={styles.add}>
      <NameSearch
        label={label}
        query={text}
        onQuery={setText}
        found={[...ingredients, ...formulas]}
        placeholder="200 g sorghum flour, or a name"
        nothing={known ? `${known.name} it is.` : "Nothing by that name; the store has all there is."}
        onPick={(item) => add(item.id, line?.grams ?? null, line?.grams ? line : null)}
        onSubmit={addWhole}
      />
      {known && whole?.grams ? (
        <Button onPress={addWhole}>{`Add ${Math.round(whole.grams.mid * 10) / 10} g of ${known.name.toLowerCase()}`}</Button>
      ) : unknown ? (
        <Button
          kind="quiet"
          onPress={() => {
            onAdd({
              id: lineId(),
              name: wordsOf(unknown),
              source: text.trim().slice(0, 500),
              ...(unknown.unit ? { unit: unknown.unit } : {}),
            });
            setText("");
          }}
        >
          {`Keep “${wordsOf(unknown)}” as an open line`}
        </Button>
      ) : null}
    </View>
  );
}

const wordsOf = ({ name, source }: { name: string; source: string }): string => (name.trim() || source.trim()).slice(0, 120);

const styles = StyleSheet.create({ add: { gap: space.s, paddingVertical: space.m } });
