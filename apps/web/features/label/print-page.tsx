import type { Formula, Label } from "@uprise/core";
import { openFormula, ownOf } from "@uprise/core/page";
import { type CSSProperties, useMemo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { readDevice, writeDevice } from "../../device/local";
import { fonts, space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Choice } from "../../ui/choice";
import { ClockField } from "../../ui/clock-field";
import { Field } from "../../ui/field";
import { NumberField } from "../../ui/number-field";
import { paperMm, PaperPage, usePaper } from "../../ui/paper";
import { Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Small } from "../../ui/words";
import { type KitchenHere, useFormula, useKitchen, usePackets } from "../wire/queries";
import { regionOptions, useRegion } from "./region";
import { nutritionRows } from "./words";
import { useAsked } from "../../device/use-asked";
import { opened } from "../../device/opened";
import { dayOfYear, daysLater, isoDay } from "../../ui/dates";

/** Between labels, mm. */
const GAP_MM = 3;
const keptNumber = (name: string, usual: number): number => Number(readDevice(name) ?? usual) || usual;

/** A sheet of labels of one formula, of the baker's own size, as many as the page takes. */
export function LabelSheet({ id }: { id: string }) {
  const { data, error, refetch } = useFormula(id);
  const formula = data?.formula ?? null;
  const { kitchen } = useKitchen(formula);
  useTitle(formula ? `Labels, ${formula.title}` : "Labels");
  if (error) return <Failed title="This formula did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!formula) return <Loading what="Fetching the formula" />;
  return <Sheet formula={formula} kitchen={kitchen} />;
}

function Sheet({ formula, kitchen }: { formula: Formula; kitchen: KitchenHere }) {
  const [size, setSize] = usePaper();
  const [region, setRegion] = useRegion();
  const { data: stored } = usePackets();
  const [widthMm, setWidth] = useState(() => keptNumber("label-width", 88));
  const [heightMm, setHeight] = useState(() => keptNumber("label-height", 90));
  const [bakedOn, setBakedOn] = useState(() => isoDay(new Date()));
  const [lot, setLot] = useState("");
  const [maker, setMaker] = useState(() => readDevice("label-maker") ?? "");
  const asked = useMemo(() => {
    const { input } = opened(() => openFormula(formula, kitchen));
    const packets = (stored ?? []).map(({ packet }) => packet);
    return input ? ([input, ownOf(kitchen.shelf), formula.kind, region, packets] as const) : null;
  }, [formula, kitchen, region, stored]);
  const { data: label, fault } = useAsked("label", asked ? [...asked] : null);
  if (fault) return <Failed title="There is no label for this." detail={fault.message} />;
  if (!label) return <Loading what="Writing the label" />;
  const page = paperMm[size];
  const fit = (room: number, one: number): number => Math.max(1, Math.floor((room + GAP_MM) / (one + GAP_MM)));
  const across = fit(page.width - 2 * page.margin, widthMm);
  const count = across * fit(page.height - 2 * page.margin, heightMm);
  const until = label.keeping.counterDays ?? label.keeping.fridgeDays;
  const best = daysLater(new Date(`${bakedOn}T12:00:00`), Math.max(0, Math.floor(until.low)));
  return (
    <PaperPage
      size={size}
      onSize={setSize}
      tools={
        <>
          <Choice label="For whose law" options={regionOptions} value={region} onChange={setRegion} />
          <View style={styles.fields}>
            <NumberField label="A label is wide" unit="mm" least={30} most={200} value={widthMm} onChange={(mm) => { if (mm !== undefined) { setWidth(mm); writeDevice("label-width", String(mm)); } }} style={styles.field} />
            <NumberField label="and high" unit="mm" least={20} most={280} value={heightMm} onChange={(mm) => { if (mm !== undefined) { setHeight(mm); writeDevice("label-height", String(mm)); } }} style={styles.field} />
            <ClockField label="Baked on" kind="date" value={bakedOn} onChange={(day) => setBakedOn(day === "" ? isoDay(new Date()) : day)} style={styles.field} />
            <Field label="Lot" value={lot} onChange={setLot} style={styles.field} />
          </View>
          <Field label="Who makes it, and where" value={maker} onChange={(text) => { setMaker(text); writeDevice("label-maker", text); }} style={styles.maker} />
          <Small tone="faint">{`${count} on a page, ${across} across. The day stands on the short side of what it keeps; the words “gluten-free” are not on it.`}</Small>
          {label.open.map((sentence) => (
            <Small key={sentence} tone="caution">{sentence}</Small>
          ))}
        </>
      }
    >
      <div style={{ display: "flex", flexWrap: "wrap", gap: `${GAP_MM}mm` }}>
        {Array.from({ length: count }, (_, k) => (
          <OneLabel key={k} label={label} title={formula.title} widthMm={widthMm} heightMm={heightMm} best={dayOfYear(best)} cold={label.keeping.counterDays === null} lot={lot} maker={maker} />
        ))}
      </div>
    </PaperPage>
  );
} // prettier-ignore

interface OneLabelProps {
  label: Label;
  title: string;
  widthMm: number;
  heightMm: number;
  best: string;
  cold: boolean;
  lot: string;
  maker: string;
}

/** Type on a small packet is 0.9 mm high at the least, and 1.2 mm on others: 7 points keep both. */
const HEAD: CSSProperties = { fontFamily: fonts.strong, fontWeight: "normal" };
const TYPE: CSSProperties = { fontSize: "7.2pt", lineHeight: 1.22 };

const Strong = ({ children }: { children: string }) => <span style={{ fontFamily: fonts.strong }}>{children}</span>;

function OneLabel({ label, title, widthMm, heightMm, best, cold, lot, maker }: OneLabelProps) {
  const { ink } = useColours();
  const box: CSSProperties = { ...TYPE, width: `${widthMm}mm`, height: `${heightMm}mm`, boxSizing: "border-box", border: `0.3mm solid ${ink}`, padding: "2mm", overflow: "hidden", breakInside: "avoid", color: ink, fontFamily: fonts.body };
  const rows = nutritionRows(label.nutrition, label.region);
  return (
    <div style={box} data-testid="one-label">
      <div style={{ fontFamily: fonts.strong, fontSize: "10pt", lineHeight: 1.15, marginBottom: "1mm" }}>{title}</div>
      <div>
        {"Ingredients: "}
        {label.ingredients.map((spans, k) => (
          <span key={k}>
            {spans.map(({ text, strong }, n) => (strong ? <Strong key={n}>{text.toUpperCase()}</Strong> : text))}
            {k < label.ingredients.length - 1 ? ", " : ". "}
          </span>
        ))}
        {label.contains ? <Strong>{`${label.contains} `}</Strong> : null}
        {label.mayContain.map(({ packet, statement }) => `${statement.replace(/\.?$/, ".")} (${packet}) `)}
      </div>
      <div style={{ marginTop: "1mm" }}>
        {`Net ${Math.round(label.netG.low / label.pieces)} g${label.pieces > 1 ? " a piece" : ""}. ${cold ? "Use by" : "Best before"} ${best}${lot === "" ? "" : `. Lot ${lot}`}.`}
      </div>
      <div>{cold ? "Keep at 5 °C or colder." : label.storage}</div>
      <table style={{ ...TYPE, borderCollapse: "collapse", marginTop: "1mm", width: "100%" }}>
        <thead>
          <tr>
            <th style={{ ...HEAD, textAlign: "left" }}>Nutrition, reckoned</th>
            <th style={{ ...HEAD, textAlign: "right" }}>100 g</th>
            <th style={{ ...HEAD, textAlign: "right" }}>{`${Math.round(label.nutrition.pieceG.mid)} g`}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ key, name, per100g, piece }) => (
            <tr key={key}>
              <td>{name}</td>
              <td style={{ textAlign: "right" }}>{per100g}</td>
              <td style={{ textAlign: "right" }}>{piece}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {maker === "" ? null : <div style={{ marginTop: "1mm" }}>{maker}</div>}
    </div>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  fields: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  field: { width: 150 },
  maker: { width: "100%", maxWidth: 480 },
});
