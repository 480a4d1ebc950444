import {
  type AmountMode,
  type Analysis,
  asIngredient,
  type Book,
  builtInShelf,
  type Formula,
  type Ingredient,
  ingredientOf,
  nestedId,
  pullsOf,
  type Shelf,
} from "@uprise/core";
import { useMemo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Choice } from "../../ui/choice";
import { Body } from "../../ui/words";
import { AddLine } from "./add-line";
import type { Change } from "./draft";
import * as edit from "./edits";
import { Row } from "./row";

const modes: { value: AmountMode; label: string }[] = [
  { value: "grams", label: "Grams" },
  { value: "household", label: "Spoons, cups" },
  { value: "percent", label: "% of flour" },
];

interface SheetProps {
  formula: Formula;
  analysis: Analysis | null;
  shelf: Shelf;
  book: Book;
  id: string;
  mode: AmountMode;
  onMode: (mode: AmountMode) => void;
  change: Change;
  onSwap: (ingredientId: string) => void;
}

/** What a row can do to its line. */
export interface RowEdits {
  amount: (
    id: string,
    read: {
      grams: Formula["lines"][number]["grams"];
      unit: NonNullable<Formula["lines"][number]["unit"]>;
      filling?: Formula["lines"][number]["filling"];
    },
    first: boolean,
  ) => void;
  ingredient: (id: string, ingredientId: string) => void;
  rename: (id: string, name: string) => void;
  note: (id: string, note: string) => void;
  lock: (id: string) => void;
  move: (id: string, by: -1 | 1) => void;
  remove: (id: string) => void;
  swap: (ingredientId: string) => void;
  close: () => void;
}

/** What a line weighs out: an ingredient, a formula of the kitchen, or something that is gone and keeps its place. */
function thingOf(ingredientId: string, shelf: Shelf, book: Book): Ingredient {
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
export function Sheet({ formula, analysis, shelf, book, id, mode, onMode, change, onSwap }: SheetProps) {
  const [open, setOpen] = useState<string | null>(null);
  const edits = useMemo<RowEdits>(() => {
    return {
      amount: (id, read, first) => change((f) => edit.setAmount(f, id, read.grams, read.unit, read.filling), !first),
      ingredient: (id, ingredientId) => change((f) => edit.setIngredient(f, id, ingredientId)),
      rename: (id, name) => change((f) => edit.renameLine(f, id, name), true),
      note: (id, note) => change((f) => edit.setNote(f, id, note), true),
      lock: (id) => change((f) => edit.toggleLock(f, id)),
      move: (id, by) => change((f) => edit.moveLine(f, id, by)),
      remove: (id) => change((f) => edit.removeLine(f, id)),
      swap: onSwap,
      close: () => setOpen(null),
    };
  }, [change, onSwap]);
  const pulls = analysis ? pullsOf(formula, book, analysis) : new Map<string, { soda: number; acid: number }>();
  const most = drawn(Math.max(1, ...[...pulls.values()].flatMap((p) => [p.soda, Math.abs(p.acid)])));
  const { measures } = formula;
  const flourG = analysis?.batch.flourG ?? 0;
  const context = useMemo(() => ({ measures, mode, flourG }), [measures, mode, flourG]);
  return (
    <View style={styles.sheet}>
      <Choice label="Amounts in" options={modes} value={mode} onChange={onMode} />
      {formula.lines.length === 0 ? (
        <Body style={styles.hint}>
          The sheet is empty. Write the first line below, as it would stand in a recipe: 200 g sorghum flour.
        </Body>
      ) : null}
      <View role="list" aria-label="Lines of the formula">
        {formula.lines.map((line) => {
          const ingredient = thingOf(line.ingredientId, shelf, book);
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
              edits={edits}
            />
          );
        })}
      </View>
      <AddLine measures={formula.measures} shelf={shelf} self={id} onAdd={(line) => change((f) => edit.addLine(f, line))} />
    </View>
  );
}

const styles = StyleSheet.create({ sheet: { paddingHorizontal: space.m }, hint: { paddingVertical: space.l } });
