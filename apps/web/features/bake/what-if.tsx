import type { Formula, Simulation, WhatIf as Change } from "@uprise/core";
import { brownWord } from "@uprise/core/page";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Button } from "../../ui/press";
import { Choice } from "../../ui/choice";
import { Slider } from "../../ui/slider";
import { Small } from "../../ui/words";
import { Table } from "../../ui/facts";

const materials: { value: NonNullable<Change["material"]> | "as it is"; label: string }[] = [
  { value: "as it is", label: "This pan" },
  { value: "light-metal", label: "Light tin" },
  { value: "dark-steel", label: "Dark steel" },
  { value: "glass", label: "Glass" },
  { value: "cast-iron", label: "Hot iron" },
];

interface WhatIfProps {
  formula: Formula;
  simulation: Simulation;
  change: Change;
  onChange: (change: Change) => void;
  /** The other bake, once it is here. */
  other: Simulation | null;
  /** Why it could not be computed. */
  fault?: string | null;
  onTake: () => void;
  onDrop: () => void;
}

const minutesOf = (s: Simulation): string => (s.reached ? `${Math.round(s.minutes)} min` : "never done");

/** What if it were hotter, fuller, another pan, higher above the sea, left standing: two bakes side by side. */
export function WhatIf({ formula, simulation, change, onChange, other, fault = null, onTake, onDrop }: WhatIfProps) {
  const [more, setMore] = useState(false);
  const { warmerK = 0, fuller = 1, material = "as it is" } = change;
  const standMinutes = change.standMinutes ?? formula.process.restMinutes ?? 0;
  const altitudeM = change.altitudeM ?? formula.oven.altitudeM ?? 0;
  const mode = change.mode ?? formula.oven.mode ?? "still";
  const set = (part: Partial<Change>): void => onChange({ ...change, ...part });
  const rows: [string, (s: Simulation) => string][] = [
    ["Done after", minutesOf],
    ["Highest", (s) => `${Math.round(s.highestMm)} mm`],
    ["Cooled, middle", (s) => `${Math.round(s.cooledMm.middle)} mm`],
    ["Top", (s) => brownWord(s.browning.top)],
    ["Base", (s) => brownWord(s.browning.base)],
    ["Loss in the oven", (s) => `${s.loss.oven.toFixed(0)} %`],
    ["Cut after", (s) => `${Math.round(s.cutAfterMinutes)} min`],
  ];
  return (
    <View style={styles.whatIf}>
      <Slider
        label="Oven"
        value={warmerK}
        least={-50}
        most={50}
        step={5}
        text={`${Math.round(formula.oven.celsius + warmerK)} °C`}
        onChange={(warmerK) => set({ warmerK })}
      />
      <Slider
        label="Batter in it"
        value={Math.round(100 * fuller)}
        least={50}
        most={150}
        step={5}
        text={`${Math.round(100 * fuller)} %`}
        onChange={(percent) => set({ fuller: percent / 100 })}
      />
      {more ? (
        <>
          <Slider
            label="Batter stands"
            value={standMinutes}
            least={0}
            most={180}
            step={10}
            text={`${standMinutes} min`}
            onChange={(standMinutes) => set({ standMinutes })}
          />
          <Slider
            label="Above the sea"
            value={altitudeM}
            least={0}
            most={3000}
            step={100}
            text={`${altitudeM} m`}
            onChange={(altitudeM) => set({ altitudeM })}
          />
          {formula.oven.mode === "hob" ? null : (
            <Choice
              label="Oven mode in thought"
              options={[
                { value: "still" as const, label: "Still" },
                { value: "fan" as const, label: "Fan" },
                { value: "air-fryer" as const, label: "Air fryer" },
              ]}
              value={mode === "hob" ? "still" : mode}
              onChange={(mode) => set({ mode })}
            />
          )}
          <Choice
            label="Pan in thought"
            options={materials}
            value={material}
            onChange={(next) => set({ material: next === "as it is" ? undefined : next })}
          />
        </>
      ) : (
        <Button kind="quiet" onPress={() => setMore(true)}>
          Standing, height, fan, another pan
        </Button>
      )}
      {other ? (
        <Table
          label="Now and what if"
          head={["", "Now", "What if"]}
          rows={rows.map(([name, of]) => ({
            key: name,
            cells: [name, of(simulation), of(other)],
            strong: of(simulation) !== of(other),
          }))}
        />
      ) : (
        <Small tone={fault ? "caution" : "faint"}>{fault ?? "Move one of them and the two bakes stand side by side."}</Small>
      )}
      <View style={styles.buttons}>
        <Button kind="main" disabled={!other} onPress={onTake}>
          Take it onto the sheet
        </Button>
        <Button kind="quiet" disabled={!other} onPress={onDrop}>
          As it was
        </Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  whatIf: { gap: space.s },
  buttons: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
});
