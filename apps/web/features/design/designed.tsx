import type { Design, Shelf, Wish } from "@uprise/core";
import { gramsText, listWords, moneyText, ownOf } from "@uprise/core/page";
import { costBy, currencyOf, pricesPerKg } from "@uprise/core/page-live";
import { useDeferredValue, useMemo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button } from "../../ui/press";
import { Slider } from "../../ui/slider";
import { Body, Heading, Small } from "../../ui/words";
import { KeepBlend } from "./keep-blend";
import { Strip } from "../instruments/strip";
import { useAsked } from "../../device/use-asked";
import { usePackets } from "../wire/queries";

export const knobs = ["rich", "sweet", "tall", "moist"] as const;
export type Knob = (typeof knobs)[number];
export type Knobs = Partial<Record<Knob, number>>;
const knobWords: Record<Knob, { label: string; less: string; more: string }> = {
  rich: { label: "Rich", less: "leaner", more: "richer" },
  sweet: { label: "Sweet", less: "less sweet", more: "sweeter" },
  tall: { label: "Tall", less: "lower", more: "taller" },
  moist: { label: "Moist", less: "drier", more: "moister" },
};
const USUAL = 0.5;
const DRAWN = 78;

interface DesignedProps {
  design: Design;
  wish: Wish;
  shelf: Shelf;
  /** It is being designed and baked once more for its sliders, or written down. */
  busy: boolean;
  fault: string | null;
  onTake: (knobs: Knobs) => void;
  /** Its dry part is fixed: nothing is slid. */
  fixed?: boolean;
}

/** One design: its four instruments, what it is made of and why, what it gives up, and sliders that move the whole of it. */
export function Designed({ design, wish, shelf, busy, fault, onTake, fixed = false }: DesignedProps) {
  const colours = useColours();
  const [set, setKnobs] = useState<Knobs>({});
  const [open, setOpen] = useState(false);
  const later = useDeferredValue(set);
  const untouched = Object.keys(later).length === 0;
  const { kind, vessel, oven, process, fill, bake } = design;
  const own = ownOf(shelf);
  const input = useMemo(
    () => (untouched ? { lines: design.lines, kind, vessel, oven, process } : null),
    [untouched, design.lines, kind, vessel, oven, process],
  );
  const wanted = useMemo(() => ({ ...wish, ...later }), [wish, later]);
  const plain = useAsked("readings", input ? [input, own] : null);
  const slid = useAsked("moved", untouched ? null : [wanted, design.id, own]);
  const baked = plain.data ? { lines: design.lines, analysis: { ...plain.data, fill, bake } } : null;
  const seen = untouched ? baked : slid.data;
  const nothing = untouched ? plain.fault !== null : slid.current && slid.data === null;
  const name = (id: string): string => shelf.get(id)?.name ?? id;
  const value = (knob: Knob): number => set[knob] ?? wish[knob] ?? USUAL;
  return (
    <View role="region" aria-label={`Design: ${design.title}`} style={[styles.design, { borderTopColor: colours.strongRule }]}>
      <Heading>{design.title}</Heading>
      <Body>{design.why}</Body>
      <Strip
        analysis={seen?.analysis ?? null}
        open={null}
        onOpen={() => undefined}
        still
        drawn={DRAWN}
        note={untouched ? null : "Weighed out for the sliders; it is baked when you take it."}
      />
      <View role="list" aria-label={`Lines of ${design.title}`}>
        {(seen?.lines ?? design.lines).map(({ ingredientId, grams }) => (
          <View key={ingredientId} role="listitem" style={[styles.line, { borderBottomColor: colours.rule }]}>
            <Body style={styles.grow}>{name(ingredientId)}</Body>
            <Body strong>{gramsText(grams)}</Body>
          </View>
        ))}
      </View>
      <Costs lines={seen?.lines ?? design.lines} name={name} />
      {nothing ? <Body tone="caution">With these sliders nothing can be weighed out from what is on hand.</Body> : null}
      {design.trades.map((trade) => (
        <Small key={trade}>{`– ${trade}`}</Small>
      ))}
      <Button kind="quiet" onPress={() => setOpen(!open)}>
        {open ? "Fold the flours" : "Why these flours"}
      </Button>
      {open
        ? design.flours.map(({ ingredientId, percent, brings, instead }) => (
            <Small key={ingredientId}>
              {`${percent} % ${name(ingredientId)}: ${brings}.${instead ? ` ${name(instead)} would do most nearly the same.` : ""}`}
            </Small>
          ))
        : null}
      {open && !fixed ? (
        <KeepBlend
          label="Keep these flours as a blend"
          name={`${design.title}, flours`}
          lines={design.lines.filter(({ ingredientId }) => design.flours.some((flour) => flour.ingredientId === ingredientId))}
          shelf={shelf}
        />
      ) : null}
      {(fixed ? [] : knobs).map((knob) => {
        const { label, less, more } = knobWords[knob];
        const now = value(knob);
        return (
          <Slider
            key={knob}
            label={label}
            value={Math.round(100 * now)}
            least={0}
            most={100}
            step={5}
            text={Math.abs(now - USUAL) < 0.03 ? "as usual" : now < USUAL ? less : more}
            onChange={(percent) => setKnobs({ ...set, [knob]: percent / 100 })}
          />
        );
      })}
      {fault ? <Body tone="caution">{fault}</Body> : null}
      <Button kind="main" disabled={busy || !seen} onPress={() => onTake(set)} label={`Take ${design.title} to the bench`}>
        {busy ? "Baking it …" : "Take it to the bench"}
      </Button>
    </View>
  );
}

/** What a design costs by the packets of the store; nothing is said in a kitchen without prices. */
function Costs({ lines, name }: { lines: Design["lines"]; name: (id: string) => string }) {
  const { data = [] } = usePackets();
  const packets = data.map(({ packet }) => packet);
  const { cost, unpriced } = costBy(pricesPerKg(packets), lines);
  if (cost === 0) return null;
  const without = unpriced.length > 0 ? `; no price yet: ${listWords(unpriced.map((id) => name(id).toLowerCase()))}` : "";
  return (
    <Small>{`${unpriced.length > 0 ? "At least" : "About"} ${moneyText(cost, currencyOf(packets, ""))} by your packets${without}.`}</Small>
  );
}

const styles = StyleSheet.create({
  design: { gap: space.s, borderTopWidth: 2, paddingTop: space.m, flexGrow: 1, flexShrink: 1, flexBasis: 330, minWidth: 0 },
  line: { flexDirection: "row", gap: space.m, borderBottomWidth: 1, paddingVertical: space.xs },
  grow: { flex: 1 },
});
