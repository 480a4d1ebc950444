import type { DragEndEvent } from "@dnd-kit/core";
import type {
  AmountMode,
  Analysis,
  Edit,
  Formula,
  FormulaComponent,
  FormulaLine,
  Ingredient,
  Kitchen,
  UsualAmount,
} from "@uprise/core";
import { asIngredient, BATTER, CoreError, isOpen, nestedId, openFormula, pullsOf, ownOf } from "@uprise/core/page";
import { type ReactNode, useCallback, useMemo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Choice } from "../../ui/choice";
import { focusSoon } from "../../ui/focus";
import { Lines, Movable } from "../../ui/movable";
import { Button, Press } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import { newId } from "../wire/client";
import { AddLine } from "./add-line";
import { ComponentHead } from "./component-head";
import { addable, newComponent } from "../instruments/component-words";
import { groupsOf, idInWords, isStocked, lineName } from "./groups";
import { type LineFaults, Row } from "./row";
import { ask } from "../../device/workers";
import { opened } from "../../device/opened";

const modes: { value: AmountMode; label: string }[] = [
  { value: "grams", label: "Grams" },
  { value: "household", label: "Spoons, cups" },
  { value: "percent", label: "% of flour" },
];

const HOW_TO_MOVE =
  "Space takes hold of the line, the arrows move it, also into another component; Space again lets it go there, Escape puts it back.";

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
function thingOf({ ingredientId = "", name }: FormulaLine, { shelf, book }: Kitchen): Ingredient {
  const known = shelf.get(ingredientId);
  if (known) return known;
  const nested = nestedId(ingredientId);
  const entry = nested === null ? undefined : book(nested);
  try {
    if (nested !== null && entry) return asIngredient(nested, entry, book, shelf);
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    // A cycle or an empty formula is told where the sheet is read.
  }
  const called =
    ingredientId === ""
      ? (name ?? "a line that is not read")
      : isStocked(shelf)
        ? `Not found: ${ingredientId}`
        : idInWords(ingredientId);
  return { ...nothing, id: ingredientId, name: entry?.title ?? called };
}

/** What stands in the place of something that is gone. */
const nothing: Ingredient = {
  id: "",
  name: "",
  aliases: [],
  family: "water",
  behaviour: "liquid",
  gPerMl: { low: 1, mid: 1, high: 1 },
  per100g: { water: 0, fat: 0, protein: 0, sugars: 0, starch: 0, fibre: 0, ash: 0 },
  allergens: [],
  gluten: "free",
  source: "estimate",
  confidence: "C",
};

/** A pull as finely as it can be seen: a row whose pull looks the same need not be drawn again. */
const drawn = (mmol: number): number => Math.round(mmol * 20) / 20;

const groupKey = (component: FormulaComponent | null): string => `group ${component?.id ?? ""}`;

/** The formula, line by line, on its spine, under the headings of its components. */
export function Sheet({ formula, analysis, kitchen, id, mode, onMode, edit, onSwap, faults }: SheetProps) {
  const [open, setOpen] = useState<string | null>(null);
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const [adding, setAdding] = useState(false);
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
  const usual = useCallback(
    async (ingredientId: string): Promise<UsualAmount[]> => {
      const { input } = opened(() => openFormula(formula, kitchen, id));
      // What keeps the sheet from being read is told where it is read.
      return input ? ask("usual", ingredientId, input, ownOf(shelf)).catch(() => []) : [];
    },
    [formula, kitchen, id, shelf],
  );
  const byLine = useMemo(() => faultsByLine(faults), [faults]);
  const pulls = analysis ? pullsOf(formula, book, analysis.lift) : new Map<string, { soda: number; acid: number }>();
  const most = drawn(Math.max(1, ...[...pulls.values()].flatMap((p) => [p.soda, Math.abs(p.acid)])));
  const { measures, components = noComponents } = formula;
  const flourG = analysis?.batch.flourG ?? 0;
  const context = useMemo(() => ({ measures, mode, flourG }), [measures, mode, flourG]);
  const groups = groupsOf(formula);
  const headed = components.length > 0;

  const movedName = (moving: string): string => {
    const line = lines.find((one) => one.id === moving);
    if (line) return lineName(line, kitchen);
    return groups.find(({ component }) => groupKey(component) === moving)?.component?.name ?? "the batter";
  };
  const drop = ({ active, over }: DragEndEvent): void => {
    if (!over || active.id === over.id) return;
    const lineId = String(active.id);
    const onto = groups.find(({ component }) => groupKey(component) === over.id);
    const target = groups.find((group) => group.lines.some(({ line }) => line.id === over.id));
    const to = onto ?? target;
    if (!to) return;
    const place = to.component ? { component: to.component.id } : {};
    const ids = to.lines.map(({ line }) => line.id);
    const from = ids.indexOf(lineId);
    const at = ids.indexOf(String(over.id));
    // Within its group it takes the place of the line it was let go on; in another it comes before it, or after it where it was let go lower.
    const middle = (rect: { top: number; height: number }): number => rect.top + rect.height / 2;
    const dropped = active.rect.current.translated;
    const lower = dropped !== null && middle(dropped) > middle(over.rect) + 4;
    const after = from >= 0 ? from < at : lower;
    const before = at < 0 ? undefined : ids[after ? at + 1 : at];
    edit({ edit: "place", lineId, ...place, ...(before === undefined ? {} : { before }) });
  };

  return (
    <View style={styles.sheet} testID="sheet">
      <Choice label="Amounts in" options={modes} value={mode} onChange={onMode} />
      {lines.length === 0 ? (
        <Body style={styles.hint}>
          The sheet is empty. Write the first line below, as it would stand in a recipe: 200 g sorghum flour.
        </Body>
      ) : null}
      <Movable how={HOW_TO_MOVE} nameOf={movedName} onDrop={drop}>
        {groups.map(({ component, lines: own }) => {
          const key = groupKey(component);
          const shut = headed && folded.has(key);
          const target = component === null ? {} : { component: component.id };
          return (
            <View key={key} role="group" aria-label={component?.name ?? "Batter"}>
              {headed ? (
                <ComponentHead
                  component={component}
                  mass={analysis?.components.find((mass) => mass.id === (component?.id ?? BATTER))}
                  lines={own.length}
                  folded={shut}
                  onFold={() => setFolded(toggled(folded, key))}
                  edit={edit}
                  fault={component ? faults.get(`components.${components.indexOf(component)}.name`) : undefined}
                />
              ) : null}
              {shut ? null : (
                <Lines
                  id={key}
                  label={component ? `Lines of ${component.name}` : "Lines of the formula"}
                  ids={own.map(({ line }) => line.id)}
                >
                  {own.map(({ line, index }) => {
                    const pull = pulls.get(line.id) ?? { soda: 0, acid: 0 };
                    return (
                      <Row
                        key={line.id}
                        line={line}
                        ingredient={thingOf(line, kitchen)}
                        component={component}
                        components={components}
                        usual={isOpen(line) ? usual : null}
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
                </Lines>
              )}
              {shut ? null : (
                <Adding name={component?.name ?? null}>
                  <AddLine
                    measures={measures}
                    shelf={shelf}
                    self={id}
                    label={component ? `Add to ${component.name}` : "Add a line"}
                    onAdd={(line) => {
                      edit({ edit: "add", line: { ...line, ...target } });
                      focusSoon(`[data-testid="amount-${line.id}"]`);
                    }}
                  />
                </Adding>
              )}
            </View>
          );
        })}
      </Movable>
      <Button kind="quiet" testID="add-component" onPress={() => setAdding(!adding)}>
        Add a filling, a topping, a glaze
      </Button>
      {adding ? (
        <View style={styles.adding} role="group" aria-label="What to add beside the batter">
          {addable.map((one) => (
            <Button
              key={one.role}
              onPress={() => {
                edit({ edit: "add-component", component: newComponent(one, `c-${newId().slice(0, 13)}`) });
                setAdding(false);
              }}
            >
              {one.name}
            </Button>
          ))}
        </View>
      ) : null}
    </View>
  );
}

/** A component asks for lines when one wants to add some; the batter always does. */
function Adding({ name, children }: { name: string | null; children: ReactNode }) {
  const [open, setOpen] = useState(false);
  if (name === null || open) return <>{children}</>;
  return (
    <Press onPress={() => setOpen(true)} aria-expanded={false} style={styles.more}>
      <Small style={styles.underlined}>{`Add to ${name}`}</Small>
    </Press>
  );
}

const noComponents: readonly FormulaComponent[] = [];

const toggled = (set: ReadonlySet<string>, key: string): ReadonlySet<string> => {
  const next = new Set(set);
  if (!next.delete(key)) next.add(key);
  return next;
};

const styles = StyleSheet.create({
  sheet: { paddingHorizontal: space.m },
  hint: { paddingVertical: space.l },
  more: { alignSelf: "flex-start", paddingLeft: 24 },
  underlined: { textDecorationLine: "underline" },
  adding: { flexDirection: "row", flexWrap: "wrap", gap: space.s, paddingBottom: space.m },
});
