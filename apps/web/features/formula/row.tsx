import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import type { AmountContext, Edit, FormulaComponent, FormulaLine, Ingredient, Shelf, UsualAmount } from "@uprise/core";
import { asSodaText, gramsText, isOpen } from "@uprise/core/page";
import ArrowDown from "lucide-react-native/icons/arrow-down";
import ArrowUp from "lucide-react-native/icons/arrow-up";
import CircleHelp from "lucide-react-native/icons/circle-question-mark";
import Lock from "lucide-react-native/icons/lock";
import LockOpen from "lucide-react-native/icons/lock-open";
import Minus from "lucide-react-native/icons/minus";
import Plus from "lucide-react-native/icons/plus";
import Trash from "lucide-react-native/icons/trash";
import { memo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Choice } from "../../ui/choice";
import { Block, PlainButton } from "../../ui/dom";
import { Field } from "../../ui/field";
import { focusSoon } from "../../ui/focus";
import { NameSearch } from "../../ui/name-search";
import { Button, Press } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import { AmountField } from "./amount-field";
import { OpenAnswer } from "./open-answer";
import { Spine } from "./spine";
import { useSearch } from "../wire/use-search";

/** What a line at fault is told, by its field. */
export interface LineFaults {
  amount?: string | undefined;
  name?: string | undefined;
  note?: string | undefined;
}

interface RowProps {
  line: FormulaLine;
  /** What it weighs out; where that is not known, something by the line's name that holds nothing. */
  ingredient: Ingredient;
  /** The component it stands in, and all it could stand in; null is the batter. */
  component: FormulaComponent | null;
  components: readonly FormulaComponent[];
  /** What may answer it, while it is open. */
  usual: ((ingredientId: string) => Promise<UsualAmount[]>) | null;
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
  component,
  components,
  usual,
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
  const { setNodeRef, setActivatorNodeRef, listeners, attributes, transform, transition, isDragging } = useSortable({
    id: line.id,
  });
  // Tabbing down the sheet stays short: what takes hold of a line is reached from the line, by Shift and Tab.
  const [near, setNear] = useState(false);
  const name = line.name ?? ingredient.name;
  const { grams } = line;
  const spread = grams && grams.high - grams.low > 0.02 * grams.mid ? grams : null;
  const waits = isOpen(line);
  return (
    <Block
      role="listitem"
      ref={setNodeRef}
      onFocus={() => setNear(true)}
      onBlur={(event) => setNear(event.currentTarget.contains(event.relatedTarget))}
      style={StyleSheet.flatten([
        styles.item,
        { borderBottomColor: colours.rule },
        isDragging ? { zIndex: 2, backgroundColor: colours.sunk } : null,
        transform ? ({ transform: CSS.Translate.toString(transform), transition } as object) : null,
      ])}
    >
      <View style={styles.row}>
        <PlainButton
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          tabIndex={near ? 0 : -1}
          aria-label={`Move ${name}`}
          style={styles.handle}
        >
          <Spine soda={soda} acid={acid} most={most} plain={component !== null} />
        </PlainButton>
        <Press testID={`line-${line.id}`} onPress={() => onOpen(open ? null : line.id)} aria-expanded={open} style={styles.name}>
          <View style={styles.nameLine}>
            {line.locked ? (
              <View role="img" aria-label="locked">
                <Lock size={15} color={colours.ink} strokeWidth={2.2} />
              </View>
            ) : null}
            {waits ? (
              <View role="img" aria-label="open">
                <CircleHelp size={17} color={colours.caution} strokeWidth={2.2} />
              </View>
            ) : null}
            <Body lines={2} style={line.off ? [styles.shrink, styles.off] : styles.shrink} tone={line.off ? "faint" : "ink"}>
              {name}
            </Body>
          </View>
          {spread && context.mode === "grams" ? (
            <Small tone="faint">
              {gramsText(spread.low).replace(" g", "")}–{gramsText(spread.high)} by {line.unit ?? "cup"}
            </Small>
          ) : null}
          {line.unsure ? <Small tone="caution">{`Not answered: ${line.unsure}`}</Small> : null}
          {line.off ? <Small tone="faint">left out, weighs nothing</Small> : null}
        </Press>
        <AmountField
          line={line}
          ingredient={ingredient}
          context={context}
          where={component?.name}
          fault={faults?.amount}
          onAmount={(read) => edit({ edit: "set-amount", lineId: line.id, ...read })}
        />
      </View>
      {waits && usual ? (
        <OpenAnswer
          line={line}
          ingredient={line.ingredientId === undefined ? null : ingredient}
          shelf={shelf}
          measures={context.measures}
          usual={usual}
          edit={edit}
        />
      ) : null}
      {open ? (
        <RowTools
          line={line}
          ingredient={ingredient}
          components={components}
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
    </Block>
  );
});

type RowToolsProps = Pick<
  RowProps,
  "line" | "ingredient" | "components" | "shelf" | "soda" | "acid" | "edit" | "onOpen" | "onSwap" | "onRemove" | "faults"
>;

/** The batter among the components that a line can go to. */
const BATTER = "batter";

function RowTools({ line, ingredient, components, shelf, soda, acid, edit, onOpen, onSwap, onRemove, faults }: RowToolsProps) {
  const colours = useColours();
  const [query, setQuery] = useState("");
  const found = useSearch(query, shelf, 6);
  const icon = { size: 20, color: colours.ink, strokeWidth: 2 };
  const c = ingredient.per100g;
  const lineId = line.id;
  const name = line.name ?? ingredient.name;
  const mid = line.grams?.mid ?? 0;
  return (
    <View style={[styles.tools, { borderLeftColor: colours.ink }]}>
      {line.source && line.source.toLowerCase() !== name.toLowerCase() ? (
        <Small tone="faint">{`In the recipe: “${line.source}”`}</Small>
      ) : null}
      <Small tone="faint">
        {gramsText((mid * c.water) / 100)} water, {gramsText((mid * c.fat) / 100)} fat, {gramsText((mid * c.sugars) / 100)} sugar
        {soda > 0.05 ? `, holds ${asSodaText(soda)} soda` : ""}
        {acid > 0.05 ? `, meets ${asSodaText(acid)} soda` : acid < -0.05 ? `, takes the acid for ${asSodaText(-acid)} soda` : ""}
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
        <Press
          label={`${line.off ? "Take" : "Leave out"} ${name}`}
          aria-pressed={line.off === true}
          onPress={() => edit({ edit: "leave-out", lineId, off: line.off !== true })}
          style={styles.tool}
        >
          {line.off ? <Plus {...icon} /> : <Minus {...icon} />}
          <Small>{line.off ? "Take it" : "Leave out"}</Small>
        </Press>
        <Press label={`Remove ${name}`} onPress={() => onRemove(lineId)} style={styles.tool}>
          <Trash {...icon} />
          <Small>Remove</Small>
        </Press>
      </View>
      {components.length > 0 ? (
        <>
          <Small tone="faint">Belongs to</Small>
          <Choice
            label={`What ${name} belongs to`}
            options={[
              { value: BATTER, label: "Batter" },
              ...components.map(({ id, name: label }) => ({ value: `in ${id}`, label })),
            ]}
            value={line.component === undefined ? BATTER : `in ${line.component}`}
            onChange={(to: string) =>
              edit({ edit: "place", lineId, ...(to === BATTER ? {} : { component: to.slice("in ".length) }) })
            }
          />
        </>
      ) : null}
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
        found={found}
        onPick={(item) => {
          edit({ edit: "set-ingredient", lineId, ingredientId: item.id });
          setQuery("");
        }}
      />
      {line.ingredientId === undefined || mid <= 0 ? null : (
        <Button kind="quiet" onPress={() => onSwap(line.ingredientId ?? "")}>
          Swap it, and keep the rest
        </Button>
      )}
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
  item: {
    display: "flex",
    flexDirection: "column",
    borderBottomWidth: 1,
    borderStyle: "solid",
    borderTopWidth: 0,
    borderLeftWidth: 0,
    borderRightWidth: 0,
  },
  handle: { display: "flex", padding: 0, margin: 0, borderWidth: 0, backgroundColor: "transparent" },
  off: { textDecorationLine: "line-through" },
  row: { flexDirection: "row", alignItems: "center", gap: space.s, minHeight: 54 },
  name: { flex: 1, minWidth: 0 },
  nameLine: { flexDirection: "row", alignItems: "center", gap: space.xs },
  shrink: { flexShrink: 1 },
  tools: { marginLeft: 27, borderLeftWidth: 1.6, paddingLeft: space.m, paddingBottom: space.m, gap: space.s },
  buttons: { flexDirection: "row", flexWrap: "wrap" },
  tool: { minWidth: 68, alignItems: "center", paddingHorizontal: space.s, gap: space.hair },
});
