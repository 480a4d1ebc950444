import type { ReactNode } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../theme/scale";
import { useColours } from "../theme/theme";
import { Why } from "./why";
import { Body, Figure, Small } from "./words";

/** One number with its name; a tap tells what it was computed from. */
export function Fact({ name, value, why, source }: { name: string; value: string; why: string; source?: string }) {
  const colours = useColours();
  return (
    <View style={[styles.fact, { borderBottomColor: colours.rule }]}>
      <Why
        shown={
          <View style={styles.shown}>
            <Small tone="faint">{name}</Small>
            <Figure>{value}</Figure>
          </View>
        }
      >
        <Body>{why}</Body>
        {source ? <Small tone="faint">{source}</Small> : null}
      </Why>
    </View>
  );
}

/** A table of a few columns with its own head; numbers stand right, in tabular digits. */
export function Table({
  label,
  head,
  rows,
}: {
  label: string;
  head: string[];
  rows: { key: string; cells: ReactNode[]; strong?: boolean }[];
}) {
  const colours = useColours();
  return (
    <View role="table" aria-label={label}>
      <View role="row" style={[styles.row, { borderBottomColor: colours.strongRule }]}>
        {head.map((cell, i) => (
          <View key={cell} role="columnheader" style={i === 0 ? styles.first : styles.cell}>
            <Small tone="faint" style={i === 0 ? null : styles.right}>
              {cell}
            </Small>
          </View>
        ))}
      </View>
      {rows.map(({ key, cells, strong }) => (
        <View key={key} role="row" style={[styles.row, { borderBottomColor: colours.rule }]}>
          {cells.map((cell, i) => (
            <View key={i} role="cell" style={i === 0 ? styles.first : styles.cell}>
              {typeof cell === "string" ? (
                <Body strong={strong === true} style={i === 0 ? null : styles.right}>
                  {cell}
                </Body>
              ) : (
                cell
              )}
            </View>
          ))}
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  fact: { borderBottomWidth: 1 },
  shown: { gap: 0, paddingVertical: space.s },
  row: { flexDirection: "row", borderBottomWidth: 1, alignItems: "center", minHeight: 40, gap: space.s },
  first: { flex: 1, minWidth: 0 },
  cell: { width: 92 },
  right: { textAlign: "right", fontVariant: ["tabular-nums"] },
});
