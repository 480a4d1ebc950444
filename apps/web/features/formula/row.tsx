import {
  type AmountContext,
  type Edit,
  type FormulaLine,
  gramsText,
  type Ingredient,
  searchIngredients,
  type Shelf,
} from "@uprise/core";
import ArrowDown from "lucide-react-native/icons/arrow-down";
import ArrowUp from "lucide-react-native/icons/arrow-up";
import Lock from "lucide-react-native/icons/lock";
import LockOpen from "lucide-react-native/icons/lock-open";
import Trash from "lucide-react-native/icons/trash";
import { memo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Field } from "../../ui/field";
import { focusSoon } from "../../ui/focus";
import { NameSearch } from "../../ui/combobox";
import { Button, Press } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import { AmountField } from "./amount-field";
import { Spine } from "./spine";

/** What a line at fault is told, by its field. */
export interface LineFaults {
  amount?: string | undefined;
  name?: string | undefined;
  note?: string | undefined;
}

interface RowProps {
  line: FormulaLine;
  ingredient: Ingredient;
  context: AmountContext;
  shelf: Shelf;
  /** mmol that the line pulls to either side, and the largest pull of the sheet. */
  soda: number;
  acid: number;
  most: number;
  open: boolean;
  onOpen: (id: string | null) => void;
  edit: (edit: Edit) => void;
  onSwap: (ingredientId: string) => void;
  /** Taken off the sheet; the focus goes to its neighbour. */
  onRemove: (id: string) => void;
  faults?: LineFaults | undefined;
}

/** One line of the sheet: its pull on the spine, its name, its amount. A tap on the name opens what else can be done with it. */
export const Row = memo(function Row({
  line,
  ingredient,
  context,
  shelf,
  soda,
  acid,
  most,
  open,
  onOpen,
  edit,
  onSwap,
  onRemove,
  faults,
}: RowProps) {
  const colours = useColours();
  const name = line.name ?? ingredient.name;
  const spread = line.grams.high - line.grams.low > 0.02 * line.grams.mid;
  return (
    <View role="listitem" style={{ borderBottomWidth: 1, borderBottomColor: colours.rule }}>
      <View style={styles.row}>
        <Spine soda={soda} acid={acid} most={most} />
        <Press testID={`line-${line.id}`} onPress={() => onOpen(open ? null : line.id)} aria-expanded={open} style={styles.name}>
          <View style={styles.nameLine}>
            {line.locked ? (
              <View role="img" aria-label="locked">
                <Lock size={15} color={colours.ink} strokeWidth={2.2} />
              </View>
            ) : null}
            <Body lines={2} style={styles.shrink}>
              {name}
            </Body>
          </View>
          {spread && context.mode === "grams" ? (
            <Small tone="faint">
              {gramsText(line.grams.low).replace(" g", "")}–{gramsText(line.grams.high)} by {line.unit ?? "cup"}
            </Small>
          ) : null}
        </Press>
        <AmountField
          line={line}
          ingredient={ingredient}
          context={context}
          fault={faults?.amount}
          onAmount={(read) => edit({ edit: "set-amount", lineId: line.id, ...read })}
        />
      </View>
      {open ? (
        <RowTools
          line={line}
          ingredient={ingredient}
          shelf={shelf}
          soda={soda}
          acid={acid}
          edit={edit}
          onOpen={onOpen}
          onSwap={onSwap}
          onRemove={onRemove}
          faults={faults}
        />
      ) : null}
    </View>
  );
});

type RowToolsProps = Pick<
  RowProps,
  "line" | "ingredient" | "shelf" | "soda" | "acid" | "edit" | "onOpen" | "onSwap" | "onRemove" | "faults"
>;

function RowTools({ line, ingredient, shelf, soda, acid, edit, onOpen, onSwap, onRemove, faults }: RowToolsProps) {
  const colours = useColours();
  const [query, setQuery] = useState("");
  const icon = { size: 20, color: colours.ink, strokeWidth: 2 };
  const c = ingredient.per100g;
  const lineId = line.id;
  const name = line.name ?? ingredient.name;
  return (
    <View style={[styles.tools, { borderLeftColor: colours.ink }]}>
      <Small tone="faint">
        {gramsText((line.grams.mid * c.water) / 100)} water, {gramsText((line.grams.mid * c.fat) / 100)} fat,{" "}
        {gramsText((line.grams.mid * c.sugars) / 100)} sugar
        {soda > 0.05 ? `, ${soda.toFixed(1)} mmol soda` : ""}
        {Math.abs(acid) > 0.05 ? `, ${acid.toFixed(1)} mmol acid` : ""}
        {ingredient.confidence === "C" ? "; roughly known" : ""}
      </Small>
      <View style={styles.buttons}>
        <Press
          label={`${line.locked ? "Unlock" : "Lock"} ${name}`}
          aria-pressed={line.locked === true}
          onPress={() => edit({ edit: "lock", lineId, locked: line.locked !== true })}
          style={styles.tool}
        >
          {line.locked ? <LockOpen {...icon} /> : <Lock {...icon} />}
          <Small>{line.locked ? "Unlock" : "Lock"}</Small>
        </Press>
        <Press label={`Move ${name} up`} onPress={() => edit({ edit: "move", lineId, by: -1 })} style={styles.tool}>
          <ArrowUp {...icon} />
          <Small>Up</Small>
        </Press>
        <Press label={`Move ${name} down`} onPress={() => edit({ edit: "move", lineId, by: 1 })} style={styles.tool}>
          <ArrowDown {...icon} />
          <Small>Down</Small>
        </Press>
        <Press label={`Remove ${name}`} onPress={() => onRemove(lineId)} style={styles.tool}>
          <Trash {...icon} />
          <Small>Remove</Small>
        </Press>
      </View>
      <Field
        label="Called here"
        value={line.name ?? ""}
        placeholder={ingredient.name}
        error={faults?.name}
        onChange={(text) => edit({ edit: "rename-line", lineId, name: text })}
      />
      <Field
        label="Note"
        value={line.note ?? ""}
        placeholder="sifted, from the new sack, …"
        error={faults?.note}
        onChange={(note) => edit({ edit: "note-line", lineId, note })}
      />
      <NameSearch
        label="Take another ingredient"
        query={query}
        onQuery={setQuery}
        found={query.trim() === "" ? [] : searchIngredients(query, shelf, 6)}
        onPick={(item) => {
          edit({ edit: "set-ingredient", lineId, ingredientId: item.id });
          setQuery("");
        }}
      />
      <Button kind="quiet" onPress={() => onSwap(line.ingredientId)}>
        Swap it, and keep the rest
      </Button>
      <Button
        kind="quiet"
        label={`Done with ${name}`}
        onPress={() => {
          onOpen(null);
          focusSoon(`[data-testid="line-${lineId}"]`);
        }}
      >
        Done
      </Button>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: "row", alignItems: "center", gap: space.s, minHeight: 54 },
  name: { flex: 1, minWidth: 0 },
  nameLine: { flexDirection: "row", alignItems: "center", gap: space.xs },
  shrink: { flexShrink: 1 },
  tools: { marginLeft: 27, borderLeftWidth: 1.6, paddingLeft: space.m, paddingBottom: space.m, gap: space.s },
  buttons: { flexDirection: "row", flexWrap: "wrap" },
  tool: { minWidth: 68, alignItems: "center", paddingHorizontal: space.s, gap: space.hair },
});
