import type { Kind, Measures } from "@uprise/core";
import { kindName, kinds, measureSystems } from "@uprise/core/page";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { useColours } from "../../theme/theme";
import { Choice } from "../../ui/choice";
import { Press } from "../../ui/press";
import { Body, Small } from "../../ui/words";

/** The kind of bake, as a line that opens into the list of all. */
export function KindPicker({ kind, onKind, note }: { kind: Kind; onKind: (kind: Kind) => void; note?: string }) {
  const colours = useColours();
  const [open, setOpen] = useState(false);
  return (
    <View>
      <Press onPress={() => setOpen(!open)} aria-expanded={open} style={[styles.kind, { borderBottomColor: colours.rule }]}>
        <Small tone="faint">Kind of bake</Small>
        <Body strong>
          {kindName[kind]}
          {note ? ` (${note})` : ""}
        </Body>
      </Press>
      {open ? (
        <Choice
          label="Kinds of bake"
          list
          options={kinds.map((value) => ({ value, label: kindName[value] }))}
          value={kind}
          onChange={onKind}
        />
      ) : null}
    </View>
  );
}

const measuresName: Record<Measures, string> = { us: "US", metric: "Metric", uk: "UK", au: "Australian" };

/** Whose cups and spoons are meant. */
export function MeasuresPicker({
  label,
  measures,
  onMeasures,
}: {
  label: string;
  measures: Measures;
  onMeasures: (measures: Measures) => void;
}) {
  return (
    <Choice
      label={label}
      options={measureSystems.map((value) => ({ value, label: measuresName[value] }))}
      value={measures}
      onChange={onMeasures}
    />
  );
}

const styles = StyleSheet.create({ kind: { borderBottomWidth: 1 } });
