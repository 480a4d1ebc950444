import type { Formula, Label, Opened } from "@uprise/core";
import { gramsText, moneyText, openPart, ownOf, spanText } from "@uprise/core/page";
import { useMemo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Choice } from "../../ui/choice";
import { Fact, Table } from "../../ui/facts";
import { Link } from "../../ui/link";
import { Notice } from "../../ui/notice";
import { NumberField } from "../../ui/number-field";
import { readDevice, writeDevice } from "../../device/local";
import { Failed, Loading } from "../../ui/state";
import { Body, Heading, Small } from "../../ui/words";
import { type KitchenHere, usePackets } from "../wire/queries";
import { regionOptions, useRegion } from "./region";
import { IngredientsText, nutritionRows } from "./words";
import { useAsked } from "../../device/use-asked";
import { opened } from "../../device/opened";

interface LabelRoomProps {
  id: string;
  formula: Formula;
  open: () => Opened;
  kitchen: KitchenHere;
}

const WHOLE = "whole";

/** What goes on the packet, how long it keeps, where it may hurt, and what it costs: computed here, by the bench as it is now. */
export function LabelRoom({ id, formula, open, kitchen }: LabelRoomProps) {
  const { shelf } = kitchen;
  const { data: stored } = usePackets();
  const [region, setRegion] = useRegion();
  const [partId, setPartId] = useState(WHOLE);
  const part = formula.parts?.find((one) => one.id === partId);
  const asked = useMemo(() => {
    const { input } = opened(part ? () => openPart(formula, part, kitchen) : open);
    const packets = (stored ?? []).map(({ packet }) => packet);
    return input ? ([input, ownOf(shelf), part?.kind ?? formula.kind, region, packets] as const) : null;
  }, [open, formula, part, kitchen, region, stored, shelf]);
  const { data: label, fault } = useAsked("label", asked ? [...asked] : null);
  if (fault) return <Failed title="There is no label for this." detail={fault.message} />;
  if (!label) return <Loading what="Writing the label" />;
  const name = (ingredientId: string): string => shelf.get(ingredientId)?.name ?? ingredientId;
  return (
    <View style={styles.room}>
      <Choice titled label="For whose law" options={regionOptions} value={region} onChange={setRegion} />
      {formula.parts && formula.parts.length > 0 ? (
        <Choice
          titled
          label="Of which part"
          options={[{ value: WHOLE, label: "All of it" }, ...formula.parts.map(({ id: value, name: label }) => ({ value, label }))]}
          value={part ? partId : WHOLE}
          onChange={setPartId}
        />
      ) : null}
      <OnThePacket label={label} title={part ? `${formula.title}, ${part.name}` : formula.title} />
      <Link to={`/print/label/${id}`} style={styles.link}>
        <Body strong style={styles.underlined}>
          A sheet of labels to print
        </Body>
      </Link>
      <Nutrition label={label} />
      <Gluten label={label} />
      <Keeping label={label} />
      {label.cautions.length > 0 ? (
        <View style={styles.part}>
          <Heading>Take care</Heading>
          {label.cautions.map(({ id: caution, words }) => (
            <Notice key={caution} gravity="caution" title={words} />
          ))}
        </View>
      ) : null}
      <CostPart id={part ? `${id}-${part.id}` : id} key={part?.id} label={label} name={name} />
      <View style={styles.part}>
        <Heading>Before it is printed</Heading>
        {label.open.map((sentence) => (
          <Body key={sentence}>{`– ${sentence}`}</Body>
        ))}
        <Small tone="faint">{`By ${label.source}; as it stood in ${label.asOf}. Your local authority has the last word.`}</Small>
      </View>
    </View>
  );
}

function OnThePacket({ label, title }: { label: Label; title: string }) {
  const colours = useColours();
  return (
    <View style={[styles.packet, { borderColor: colours.ink }]} role="group" aria-label="On the packet">
      <Heading>{title}</Heading>
      <IngredientsText ingredients={label.ingredients} />
      {label.contains === null ? null : <Body strong>{label.contains}</Body>}
      {label.mayContain.map(({ packet, statement }) => (
        <Body key={`${packet}${statement}`}>{`As “${packet}” prints it: ${statement}`}</Body>
      ))}
      <Body>{`Net: ${label.netText}.`}</Body>
      <Body>{label.storage}</Body>
    </View>
  );
}

function Nutrition({ label }: { label: Label }) {
  const piece = Math.round(label.nutrition.pieceG.mid);
  return (
    <View style={styles.part}>
      <Heading>Nutrition</Heading>
      <Table
        label="Nutrition"
        head={["reckoned, not measured", "100 g", label.pieces > 1 ? `${piece} g piece` : "all of it"]}
        rows={nutritionRows(label.nutrition, label.region).map((row) => ({ key: row.key, cells: [
          <View key="name">
            <Body>{row.name}</Body>
            <Small tone="faint">{row.spread}</Small>
          </View>,
          row.per100g,
          row.piece,
        ] }))}
      />
    </View>
  );
} // prettier-ignore

const stateWords = { confirmed: "its packet says so", open: "not confirmed", against: "speaks against it" } as const;

function Gluten({ label }: { label: Label }) {
  const { checks, caution, claim } = label.gluten;
  const colours = useColours();
  const open = checks.filter(({ state }) => state === "open").length;
  return (
    <View style={styles.part}>
      <Heading>Gluten-free?</Heading>
      <Body strong>
        {claim === "against"
          ? "As this shelf is, the words may not stand on it."
          : open > 0
            ? `${open} of ${checks.length} packets still have to say it.`
            : "Every packet that must say it does. That is what is needed to ask for a test, and no more."}
      </Body>
      <View role="list" aria-label="What each packet must say">
        {checks.map(({ ingredientId, name, ask, state, by }) => (
          <View key={ingredientId} role="listitem" style={[styles.check, { borderBottomColor: colours.rule }]}>
            <Body strong={state !== "confirmed"} tone={state === "against" ? "stop" : state === "open" ? "caution" : "ink"}>
              {`${state === "confirmed" ? "✓" : state === "open" ? "?" : "✗"}  ${name}: ${stateWords[state]}`}
            </Body>
            <Small tone="faint">{`${ask}${by ? ` ${by}.` : ""}`}</Small>
          </View>
        ))}
      </View>
      <Small tone="faint">{caution}</Small>
    </View>
  );
}

function Keeping({ label }: { label: Label }) {
  const { keeping } = label;
  const { low, mid, high } = keeping.waterActivity;
  return (
    <View style={styles.part}>
      <Heading>Keeping</Heading>
      <Fact
        name="On the counter, wrapped"
        value={keeping.counterDays ? (keeping.counterDays.high < 1 ? "the same day" : spanText(keeping.counterDays, "day")) : "not at all"}
        why={keeping.why.join(" ")}
        source="Kitchen ranges by kind of bake, and days until mould by water activity; spread as it is in kitchens."
      />
      <Fact name="In the fridge" value={spanText(keeping.fridgeDays, "day")} why="Cold slows mould about fivefold and lets starch set faster: warm it before it is eaten." />
      <Fact name="Frozen" value={keeping.freezerMonths ? spanText(keeping.freezerMonths, "month") : "not as it is"} why={`${keeping.freeze} ${keeping.thaw}`} />
      <Fact
        name="Water that mould can use"
        value={`${low.toFixed(2)}–${high.toFixed(2)} of pure water`}
        why={`The water activity; ${mid.toFixed(3)} is likeliest: water that starch, protein and fibre do not hold, against what sugar and salt are dissolved in it. Bacteria want more than 0.92, most moulds more than 0.80.`}
      />
      <Body>{`To freshen it: ${keeping.refresh}`}</Body>
    </View>
  );
} // prettier-ignore

function CostPart({ id, label: { cost, pieces }, name }: { id: string; label: Label; name: (id: string) => string }) {
  const kept = `sold-for-${id}`;
  const [sold, setSold] = useState(() => Number(readDevice(kept) ?? "") || undefined);
  if (!cost)
    return (
      <View style={styles.part}>
        <Heading>Cost</Heading>
        <Body>None of its packets has a price yet.</Body>
        <Link to="/store/packets" style={styles.link}>
          <Body style={styles.underlined}>Write packets down in the store</Body>
        </Link>
      </View>
    );
  const money = (amount: number): string => moneyText(amount, cost.currency);
  const span = ({ low, mid, high }: { low: number; mid: number; high: number }): string =>
    high - low < 0.005 ? money(mid) : `${money(mid)}, ${low.toFixed(2)}–${high.toFixed(2)}`;
  const lines = [...cost.lines].filter((line) => line.cost !== null).sort((a, b) => (b.cost?.mid ?? 0) - (a.cost?.mid ?? 0));
  const last = cost.before.at(-1);
  return (
    <View style={styles.part}>
      <Heading>Cost</Heading>
      {cost.unpriced.length > 0 ? <Body tone="caution">{`Not in the sum, for want of a price: ${cost.unpriced.map((one) => name(one).toLowerCase()).join(", ")}.`}</Body> : null}
      <Body strong>{`${cost.unpriced.length > 0 ? "At least " : ""}${span(cost.piece)} ${pieces > 1 ? "a piece" : "for it"}; ${money(cost.perKg.mid)} a kilogram that comes out of the oven.`}</Body>
      {last ? <Body>{`Before ${last.on} the batch cost ${money(last.batch)}; now ${money(cost.batch.mid)}.`}</Body> : null}
      <Table
        label="Cost by ingredient"
        head={["of its packet", "uses", cost.currency]}
        rows={lines.slice(0, 8).map(({ ingredientId, grams, cost: each, packet }) => ({ key: ingredientId, cells: [packet ?? name(ingredientId), gramsText(grams), (each?.mid ?? 0).toFixed(2)] }))}
      />
      <NumberField label={pieces > 1 ? "A piece is sold for" : "It is sold for"} unit="" least={0} most={100_000} optional value={sold} onChange={(next) => { setSold(next); writeDevice(kept, next === undefined ? "" : String(next)); }} style={styles.sold} />
      {sold !== undefined && sold > 0 ? <Body>{`${money(sold - cost.piece.mid)} of ${money(sold)} is left for work, heat and rent: ${Math.round(100 * (1 - cost.piece.mid / sold))} %${cost.unpriced.length > 0 ? ", less what has no price yet" : ""}.`}</Body> : null}
    </View>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  room: { gap: space.xl },
  part: { gap: space.s },
  packet: { borderWidth: 2, padding: space.m, gap: space.s },
  check: { borderBottomWidth: 1, paddingVertical: space.s, gap: space.hair },
  link: { alignSelf: "flex-start" },
  sold: { width: 180 },
  underlined: { textDecorationLine: "underline" },
});
