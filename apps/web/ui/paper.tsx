import type { CSSProperties, ReactNode } from "react";
import { StyleSheet, View } from "react-native";
import { readDevice, writeDevice } from "../device/local";
import { fonts, space } from "../theme/scale";
import { useColours } from "../theme/theme";
import { useState } from "react";
import { Choice } from "./choice";
import { Button } from "./press";

export const paperSizes = ["A4", "Letter", "A6"] as const;
export type PaperSize = (typeof paperSizes)[number];

/** Width of what is printed on, mm, and the margin around it. */
export const paperMm: Record<PaperSize, { width: number; height: number; margin: number }> = {
  A4: { width: 210, height: 297, margin: 14 },
  Letter: { width: 215.9, height: 279.4, margin: 14 },
  A6: { width: 105, height: 148, margin: 7 },
};

const KEPT = "paper";

/** The paper of this device: the one chosen last; `first` where a link asks for one. */
export function usePaper(first?: string): [PaperSize, (size: PaperSize) => void] {
  const named = (name: string | null | undefined): PaperSize | undefined => paperSizes.find((size) => size.toLowerCase() === name?.toLowerCase()); // prettier-ignore
  const [size, setSize] = useState<PaperSize>(() => named(first) ?? named(readDevice(KEPT)) ?? (/-(?:US|CA)\b/.test(globalThis.navigator?.language ?? "") ? "Letter" : "A4")); // prettier-ignore
  return [
    size,
    (next) => {
      if (next !== "A6") writeDevice(KEPT, next);
      setSize(next);
    },
  ];
}

interface PaperPageProps {
  size: PaperSize;
  onSize: (size: PaperSize) => void;
  /** Sizes that this page is made for. */
  sizes?: readonly PaperSize[];
  /** What else is set before it is printed; it is not on the paper. */
  tools?: ReactNode;
  children: ReactNode;
}

/** Something for paper, as wide as what is printed on; what it is set with stands over it and stays on the screen. */
export function PaperPage({ size, onSize, sizes = ["A4", "Letter"], tools, children }: PaperPageProps) {
  const { width, margin } = paperMm[size];
  const css = `@page { size: ${size === "A6" ? "105mm 148mm" : size}; margin: ${margin}mm; }`;
  return (
    <View>
      <style>{css}</style>
      <View style={styles.tools} testID="print-tools">
        <Choice label="Paper" options={sizes.map((value) => ({ value, label: value }))} value={size} onChange={onSize} />
        {tools}
        <Button kind="main" onPress={() => globalThis.print()} style={styles.print}>
          Print
        </Button>
      </View>
      <div data-testid="paper" style={{ ...sheet, maxWidth: `${width - 2 * margin}mm` }}>
        {children}
      </div>
    </View>
  );
}

const sheet: CSSProperties = { padding: 0, margin: "0 12px 24px", boxSizing: "border-box" };

interface PaperTableProps {
  label: string;
  head: string[];
  rows: { key: string; cells: ReactNode[]; strong?: boolean }[];
  /** Columns whose figures stand right. */
  right?: readonly number[];
  small?: boolean;
}

/** A head longer than this may wrap: on a narrow screen its column would stick out, signs. */
const SHORT_HEAD = 8;

/** A table that goes over pages: its head stands on each of them, no line is cut in two. */
export function PaperTable({ label, head, rows, right = [], small = false }: PaperTableProps) {
  const { ink, rule } = useColours();
  const cell = (k: number, strong: boolean): CSSProperties => ({
    textAlign: right.includes(k) ? "right" : "left",
    whiteSpace: right.includes(k) ? "nowrap" : "normal",
    fontVariantNumeric: "tabular-nums",
    fontFamily: strong ? fonts.strong : fonts.body,
    fontSize: small ? 12 : 15,
    lineHeight: 1.35,
    padding: small ? "2px 8px 2px 0" : "4px 12px 4px 0",
    borderBottom: `1px solid ${rule}`,
    verticalAlign: "top",
    color: ink,
  });
  return (
    <table aria-label={label} style={{ borderCollapse: "collapse", width: "100%" }}>
      {head.some((word) => word !== "") ? (
        <thead style={{ display: "table-header-group" }}>
          <tr>
            {head.map((word, k) => (
              <th
                key={`${k}${word}`}
                scope="col"
                style={{
                  ...cell(k, true),
                  ...(word.length > SHORT_HEAD ? { whiteSpace: "normal" } : {}),
                  borderBottom: `1.5px solid ${ink}`,
                }}
              >
                {word}
              </th>
            ))}
          </tr>
        </thead>
      ) : null}
      <tbody>
        {rows.map(({ key, cells, strong }) => (
          <tr key={key} style={{ breakInside: "avoid" }}>
            {cells.map((content, k) => (
              <td key={k} style={cell(k, strong === true || (k === 0 && right.includes(0)))}>
                {content}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const styles = StyleSheet.create({
  tools: { padding: space.m, gap: space.m, alignItems: "flex-start", maxWidth: 560 },
  print: { alignSelf: "flex-start" },
});
