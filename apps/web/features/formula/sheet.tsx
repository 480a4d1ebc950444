import {
  type AmountMode,
  type Analysis,
  asIngredient,
  builtInShelf,
  type Edit,
  type Formula,
  type Ingredient,
  ingredientOf,
  type Kitchen,
  nestedId,
  pullsOf,
} from "@uprise/core";
import { useCallback, useMemo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Choice } from "../../ui/choice";
import { focusSoon } from "../../ui/focus";
import { Body } from "../../ui/words";
import { AddLine } from "./add-line";
import { type LineFaults, Row } from "./row";

const modes: { value: AmountMode; label: string }[] = [
  { value: "grams", label: "Grams" },
  { value: "household", label: "Spoons, cups" },
  { value: "percent", label: "% of flour" },
];

interface SheetProps {
  formula: Formula;
  analysis: Analysis | null;
  kitchen: Kitchen;
  id: string;
  mode: AmountMode;
  onMode: (mode: AmountMode) => void;
  edit: (edit: Edit) => void;
  onSwap: (ingredientId: string) => void;
  faults: ReadonlyMap<string, string>;
}

/** The faults of each line, by its place; most sheets have none, and a row then gets the same nothing. */
function faultsByLine(faults: ReadonlyMap<string, string>): ReadonlyMap<number, LineFaults> {
  const lines = new Map<number, LineFaults>();
  for (const [path, message] of faults) {
    const [, at, field = ""] = /^lines\.(\d+)\.(\w+)/.exec(path) ?? [];
    if (at === undefined) continue;
    const key = field === "grams" ? "amount" : field === "name" || field === "note" ? field : null;
    if (key) lines.set(Number(at), { ...lines.get(Number(at)), [key]: message });
  }
  return lines;
}

/** What a line weighs out: an ingredient, a formula of the kitchen, or something that is gone and keeps its place. */
function thingOf(ingredientId: string, { shelf, book }: Kitchen): Ingredient {
  const known = shelf.get(ingredientId);
  if (known) return known;
  const nested = nestedId(ingredientId);
  const entry = nested === null ? undefined : book(nested);
  try {
    if (nested !== null && entry) return asIngredient(nested, entry, book, shelf);
  } catch {
    // A cycle or an empty formula is told where the sheet is read.
  }
  return {
    ...ingredientOf(builtInShelf, "water"),
    id: ingredientId,
    name: entry?.title ?? `Not found: ${ingredientId}`,
    pieces: [],
    per100g: { water: 0, fat: 0, protein: 0, sugars: 0, starch: 0, fibre: 0, ash: 0 },
  };
}

/** A pull as finely as it can be seen: a row whose pull looks the same need not be drawn again. */
const drawn = (mmol: number): number => Math.round(mmol * 20) / 20;

/** The formula, line by line, on its spine. */
export function Sheet({ formula, analysis, kitchen, id, mode, onMode, edit, onSwap, faults }: SheetProps) {
  const [open, setOpen] = useState<string | null>(null);
  const { shelf, book } = kitchen;
  const { lines } = formula;
  const onRemove = useCallback(
    (gone: string) => {
      const at = lines.findIndex((line) => line.id === gone);
      const next = lines[at + 1] ?? lines[at - 1];
      setOpen(null);
      edit({ edit: "remove", lineId: gone });
      focusSoon(next ? `[data-testid="line-${next.id}"]` : "[data-testid=sheet] input");
    },
    [lines, edit],
  );
  const byLine = useMemo(() => faultsByLine(faults), [faults]);
  const pulls = analysis ? pullsOf(formula, book, analysis) : new Map<string, { soda: number; acid: number }>();
  const most = drawn(Math.max(1, ...[...pulls.values()].flatMap((p) => [p.soda, Math.abs(p.acid)])));
  const { measures } = formula;
  const flourG = analysis?.batch.flourG ?? 0;
  const context = useMemo(() => ({ measures, mode, flourG }), [measures, mode, flourG]);
  return (
    <View style={styles.sheet} testID="sheet">
      <Choice label="Amounts in" options={modes} value={mode} onChange={onMode} />
      {lines.length === 0 ? (
        <Body style={styles.hint}>
          The sheet is empty. Write the first line below, as it would stand in a recipe: 200 g sorghum flour.
        </Body>
      ) : null}
      <View role="list" aria-label="Lines of the formula">
        {lines.map((line, index) => {
          const ingredient = thingOf(line.ingredientId, kitchen);
          const pull = pulls.get(line.id) ?? { soda: 0, acid: 0 };
          return (
            <Row
              key={line.id}
              line={line}
              ingredient={ingredient}
              context={context}
              shelf={shelf}
              soda={drawn(pull.soda)}
              acid={drawn(pull.acid)}
              most={most}
              open={open === line.id}
              onOpen={setOpen}
              edit={edit}
              onSwap={onSwap}
              onRemove={onRemove}
              faults={byLine.get(index)}
            />
          );
        })}
      </View>
      <AddLine measures={formula.measures} shelf={shelf} self={id} onAdd={(line) => edit({ edit: "add", line })} />
    </View>
  );
}

const styles = StyleSheet.create({ sheet: { paddingHorizontal: space.m }, hint: { paddingVertical: space.l } });
