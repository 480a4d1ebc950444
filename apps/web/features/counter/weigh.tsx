import type { Shelf, ToWeigh } from "@uprise/core";
import { gramsText, ingredientOf } from "@uprise/core/page";
import { toleranceG } from "@uprise/core/page-live";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space, touch } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { NumberField } from "../../ui/number-field";
import { Button } from "../../ui/press";
import { Figure, Heading, Small } from "../../ui/words";
import { wire } from "../wire/client";
import type { Device } from "../wire/use-device";

interface WeighProps {
  line: ToWeigh;
  rest: number;
  shelf: Shelf;
  scaleId: string | null;
  /** What the scale shows. */
  scale: Device;
  /** Amounts can be poured by the stand-in's hand. */
  played: boolean;
  onWeighed: (grams: number, by: "scale" | "hand" | "spoon", off: boolean) => void;
}

/** One amount on the scale: what is wanted, what lies on the pan, and whether that is near enough. */
export function Weigh({ line, rest, shelf, scaleId, scale: { message, silent }, played, onWeighed }: WeighProps) {
  const colours = useColours();
  const [typed, setTyped] = useState<number | undefined>(undefined);
  const ingredient = ingredientOf(shelf, line.ingredientId);
  const tolerance = toleranceG(ingredient, line.grams);
  const onPan = scaleId !== null && !silent ? (message?.value ?? null) : null;
  const off = onPan === null ? null : onPan - line.grams;
  const near = off !== null && Math.abs(off) <= tolerance;
  const word = off === null ? "" : near ? "near enough" : off < 0 ? `${gramsText(-off)} to go` : `${gramsText(off)} too much`;
  const tell = (command: Parameters<typeof wire.tellDevice>[1]): void => {
    if (scaleId) void wire.tellDevice(scaleId, command).catch(() => undefined);
  };
  return (
    <View style={styles.weigh}>
      <Heading style={styles.name}>{ingredient.name}</Heading>
      <View style={styles.figures}>
        <Figure style={styles.large}>{gramsText(line.grams)}</Figure>
        <Small tone="faint">{`give or take ${gramsText(tolerance)}`}</Small>
      </View>
      {onPan === null ? (
        scaleId !== null ? (
          <Small tone={silent ? "caution" : "faint"}>
            {silent ? "The scale is silent. Weigh by hand, and type what it shows." : "Listening to the scale."}
          </Small>
        ) : null
      ) : (
        <View style={styles.pan} role="status" aria-live="off" aria-label={`On the pan ${gramsText(onPan)}, ${word}`}>
          <Figure style={styles.large} tone={near ? "good" : off !== null && off > 0 ? "stop" : "ink"}>
            {`${onPan.toFixed(onPan < 100 ? 1 : 0)} g`}
          </Figure>
          <View style={[styles.track, { borderColor: colours.ink }]} aria-hidden>
            <View
              style={[
                styles.filled,
                {
                  backgroundColor: near ? colours.good : colours.ink,
                  width: `${Math.max(0, Math.min(100, (80 * onPan) / line.grams))}%`,
                },
              ]}
            />
            <View style={[styles.aim, { backgroundColor: colours.ink }]} />
          </View>
          <Small strong tone={near ? "good" : "ink"}>
            {`${word}${message?.stable === false ? ", still moving" : ""}`}
          </Small>
        </View>
      )}
      <View style={styles.tools}>
        {onPan !== null ? (
          <>
            <Button
              kind="main"
              style={styles.big}
              disabled={onPan < 0.05}
              onPress={() => {
                onWeighed(Math.round(onPan * 10) / 10, "scale", !near);
                tell({ command: "tare" });
              }}
            >
              {near ? "Take it" : "Take it as it is"}
            </Button>
            <Button style={styles.big} onPress={() => tell({ command: "tare" })}>
              Tare
            </Button>
            {played ? (
              <Button style={styles.big} onPress={() => tell({ command: "rehearse", pourG: line.grams - onPan })}>
                Let it pour
              </Button>
            ) : null}
          </>
        ) : null}
        {onPan === null ? (
          <Button kind="main" style={styles.big} onPress={() => onWeighed(line.grams, "hand", false)}>
            {`It is ${gramsText(line.grams)}`}
          </Button>
        ) : null}
        <Button style={styles.big} onPress={() => onWeighed(line.grams, "spoon", false)}>
          By spoon
        </Button>
      </View>
      <View style={styles.tools}>
        <NumberField
          label="Or what your own scale shows"
          value={typed}
          unit="g"
          least={0}
          most={100_000}
          optional
          onChange={setTyped}
          style={styles.field}
        />
        <Button
          style={styles.big}
          disabled={typed === undefined}
          onPress={() => {
            if (typed !== undefined) onWeighed(typed, "hand", Math.abs(typed - line.grams) > tolerance);
            setTyped(undefined);
          }}
        >
          Take that
        </Button>
      </View>
      <Small tone="faint">{rest === 0 ? "The last of this step." : `${rest} more for this step.`}</Small>
    </View>
  );
}

const styles = StyleSheet.create({
  name: { fontSize: 26, lineHeight: 32 },
  weigh: { gap: space.s },
  figures: { flexDirection: "row", alignItems: "baseline", gap: space.m, flexWrap: "wrap" },
  large: { fontSize: 44, lineHeight: 48 },
  pan: { gap: space.xs },
  track: { height: 20, borderWidth: 1.5, overflow: "hidden" },
  filled: { height: "100%" },
  aim: { position: "absolute", left: "80%", top: 0, bottom: 0, width: 3 },
  tools: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "flex-end" },
  big: { minHeight: touch.counter },
  field: { width: 210 },
});
