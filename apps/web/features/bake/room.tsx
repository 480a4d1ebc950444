import type { Analysis, Bake, Edit, Formula, Opened, Simulation, Vessel, WhatIf as WhatIfChange } from "@uprise/core";
import { coolings, fahrenheitFromCelsius, methodName, methods, ovenLimits, ovenModes, ovenShelves } from "@uprise/core/page";
import { perRack } from "@uprise/core/page-live";
import type { OvenProfile } from "@uprise/contract";
import { lazy, type ReactNode, Suspense, useDeferredValue, useState } from "react";
import { StyleSheet, useWindowDimensions, View } from "react-native";
import { space } from "../../theme/scale";
import { Choice } from "../../ui/choice";
import { NumberField } from "../../ui/number-field";
import { Busy } from "../../ui/state";
import { Body, Heading, Small } from "../../ui/words";
import { BakeArc } from "../instruments/arc";
import { Beliefs } from "../instruments/beliefs";
import { bakeSentence, happenings } from "../instruments/bake-words";
import { DoneLine } from "../instruments/done-line";
import { minutesText, sentenceOf } from "../instruments/sentences";
import type { KitchenHere } from "../wire/queries";
import { BakePlayer } from "./bake-player";
import { Colour } from "./colour";
import { ManyRuns, useManyRuns } from "./many-runs";
import { useOther } from "./use-other";
import { Fact, Table } from "../../ui/facts";
import { WhatIf } from "./what-if";

/** Charts weigh as much as a third of the first page: they come when a bake is looked at. */
const BakeChart = lazy(async () => ({ default: (await import("./bake-chart")).BakeChart }));

const modeName: Record<(typeof ovenModes)[number], string> = {
  still: "Top and bottom",
  fan: "Fan",
  "air-fryer": "Air fryer",
  hob: "Hob",
};

const coolingName: Record<(typeof coolings)[number], string> = {
  upright: "Turned out after a while",
  "in-tin": "Cools in its tin",
  "upside-down": "Cools upside down",
};
const shelfName: Record<(typeof ovenShelves)[number], string> = { low: "Low shelf", middle: "Middle", high: "High shelf" };

type DoneWhen = NonNullable<Formula["process"]["doneWhen"]>;
const doneChoices: { value: DoneWhen | ""; label: string }[] = [
  { value: "", label: "As its kind" },
  { value: "inside", label: "Set inside" },
  { value: "crust", label: "A light, dry crust" },
  { value: "top", label: "Top golden" },
  { value: "rim", label: "Rim and top golden" },
  { value: "edge", label: "Edge golden" },
  { value: "faces", label: "Both faces coloured" },
  { value: "snaps", label: "It snaps" },
];

interface BakeRoomProps {
  /** How the bake is laid out in stages; it can be dragged, which comes with the sheet. */
  stages: ReactNode;
  formula: Formula;
  analysis: Analysis;
  simulation: Simulation | null;
  /** A newer simulation is being computed. */
  baking: boolean;
  /** Why the bake could not be computed. */
  unbaked?: string | null;
  /** The formula opened for the core. */
  open: () => Opened;
  kitchen: KitchenHere;
  edit: (edit: Edit) => void;
}

/** The oven and the batter's wait before it; the bake as it will go, when to look, and by which sign it is done. */
export function BakeRoom({ stages, formula, analysis, simulation, baking, unbaked = null, open, kitchen, edit }: BakeRoomProps) {
  const { bake } = analysis;
  const { oven, process } = formula;
  const { ovens, shelf } = kitchen;
  const { width: window } = useWindowDimensions();
  const width = Math.min(420, window - 24);
  const outOfTin = simulation?.outOfTinMinutes ?? 0;
  const [change, setChange] = useState<WhatIfChange | null>(null);
  const runs = useManyRuns(open, shelf, simulation !== null && !baking);
  const { other, fault } = useOther(open, shelf, change);
  // Drawings follow the table of numbers when they cannot keep up with a dragged slider.
  const drawnOther = useDeferredValue(other);
  return (
    <View style={styles.room}>
      {simulation ? (
        <>
          <BakePlayer simulation={simulation} other={drawnOther} width={width} />
          <Body>{bakeSentence(simulation)}</Body>
          <View style={styles.drawing} testID="done-line">
            <DoneLine simulation={simulation} width={width} />
          </View>
          <Table
            label="Minute by minute"
            head={["What happens", "When"]}
            rows={happenings(simulation, oven.mode === "hob").map(({ key, what, when, strong }) => ({
              key,
              cells: [what, when],
              strong: strong === true,
            }))}
          />
        </>
      ) : (
        <View style={styles.drawing}>{bake ? <BakeArc bake={bake} said={analysis.recipe?.minutes} width={260} /> : null}</View>
      )}
      <Busy on={baking} what="Baking it in the computer" />
      {unbaked ? <Body tone="caution">{unbaked}</Body> : null}
      <Body strong>{sentenceOf("bake", analysis)}</Body>
      {simulation?.notes.map((note) => (
        <Small key={note} tone="faint">
          {note}
        </Small>
      ))}
      <View style={styles.fields}>
        <NumberField
          label="Oven"
          unit="°C"
          least={ovenLimits.least}
          most={ovenLimits.most}
          value={oven.celsius}
          fahrenheit={oven.dial === "F"}
          onChange={(celsius, fahrenheit) => {
            // Typed with its unit, a temperature says which dial it is.
            const dial = fahrenheit ? "F" : "C";
            const other = dial !== (oven.dial ?? "C");
            if (celsius !== undefined) edit({ edit: "set-oven", set: { celsius, ...(other ? { dial } : {}) } });
          }}
          style={styles.field}
        />
        <NumberField
          label="Batter stands"
          unit="min"
          least={0}
          most={2880}
          value={process.restMinutes ?? 0}
          onChange={(restMinutes) => restMinutes !== undefined && edit({ edit: "set-process", set: { restMinutes } })}
          style={styles.field}
        />
      </View>
      <Small tone="faint">
        {`${Math.round(oven.celsius)} °C is ${Math.round(fahrenheitFromCelsius(oven.celsius))} °F; type “350 F” for a dial in °F.`}
      </Small>
      <Choice
        titled
        label="Oven mode"
        options={ovenModes.map((value) => ({ value, label: modeName[value] }))}
        value={oven.mode ?? "still"}
        onChange={(mode) => edit({ edit: "set-oven", set: { mode } })}
      />
      {oven.mode === "hob" || oven.mode === "air-fryer" ? null : (
        <Choice
          titled
          label="Shelf"
          options={ovenShelves.map((value) => ({ value, label: shelfName[value] }))}
          value={oven.shelf ?? "middle"}
          onChange={(value) =>
            edit(value === "middle" ? { edit: "set-oven", set: {}, clear: ["shelf"] } : { edit: "set-oven", set: { shelf: value } })
          }
        />
      )}
      <Choice
        titled
        label="Method"
        options={methods.map((value) => ({ value, label: methodName[value] }))}
        value={process.method ?? "muffin"}
        onChange={(method) => edit({ edit: "set-process", set: { method } })}
      />
      {oven.mode === "hob" && !process.stages ? null : (
        <Choice
          titled
          label="Done when"
          options={doneChoices}
          value={process.doneWhen ?? ""}
          onChange={(value) =>
            edit(
              value === ""
                ? { edit: "set-process", set: {}, clear: ["doneWhen"] }
                : { edit: "set-process", set: { doneWhen: value } },
            )
          }
        />
      )}
      {formula.vessel.shape === "free" || formula.vessel.shape === "griddle" ? null : (
        <Choice
          titled
          label="After the oven"
          options={coolings
            .filter((value) => value !== "upside-down" || formula.vessel.shape !== "muffin")
            .map((value) => ({ value, label: coolingName[value] }))}
          value={process.cooling ?? "upright"}
          onChange={(value) =>
            edit(
              value === "upright"
                ? { edit: "set-process", set: {}, clear: ["cooling"] }
                : { edit: "set-process", set: { cooling: value } },
            )
          }
        />
      )}
      {outOfTin > 0 && (process.cooling ?? "upright") === "upright" ? (
        <NumberField
          label="In its tin"
          unit="min"
          least={0}
          most={720}
          value={process.tinMinutes ?? outOfTin}
          onChange={(tinMinutes) => tinMinutes !== undefined && edit({ edit: "set-process", set: { tinMinutes } })}
          style={styles.field}
        />
      ) : null}
      <Heading>Stages</Heading>
      {stages}
      {ovens.size > 0 && oven.mode !== "hob" ? (
        <>
          <Choice
            titled
            label="Which oven"
            options={[{ value: "", label: "Any oven" }, ...[...ovens].map(([value, { name }]) => ({ value, label: name }))]}
            value={oven.ovenId !== undefined && ovens.has(oven.ovenId) ? oven.ovenId : ""}
            onChange={(ovenId) =>
              edit(ovenId === "" ? { edit: "set-oven", set: {}, clear: ["ovenId"] } : { edit: "set-oven", set: { ovenId } })
            }
          />
          <Small tone="faint">{ovenWords(ovens.get(oven.ovenId ?? ""), formula.vessel)}</Small>
        </>
      ) : null}
      {simulation ? (
        <>
          <Heading>What if</Heading>
          <WhatIf
            formula={formula}
            simulation={simulation}
            change={change ?? {}}
            onChange={setChange}
            other={other}
            fault={fault}
            onTake={() => {
              if (change) edit({ edit: "what-if", change });
              setChange(null);
            }}
            onDrop={() => setChange(null)}
          />
          <Suspense fallback={<Busy on what="Fetching the charts" />}>
            <BakeChart what="core" simulation={simulation} other={drawnOther} width={width} />
            <BakeChart what="rise" simulation={simulation} other={drawnOther} width={width} />
          </Suspense>
        </>
      ) : null}
      {bake ? <AtTheOven bake={bake} simulation={simulation} runs={runs} width={width} /> : null}
      <Beliefs at="bake" analysis={analysis} simulation={simulation} shelf={kitchen.shelf} />
      {simulation ? (
        <>
          <Heading>Colour</Heading>
          <Colour formula={formula} simulation={simulation} open={open} shelf={kitchen.shelf} edit={edit} />
        </>
      ) : null}
      {bake ? (
        <>
          <Heading>Signs that it is done</Heading>
          {bake.signs.map((sign) => (
            <Body key={sign}>– {sign}</Body>
          ))}
        </>
      ) : null}
    </View>
  );
}

interface AtTheOvenProps {
  bake: Bake;
  simulation: Simulation | null;
  runs: ReturnType<typeof useManyRuns>;
  width: number;
}

/** The numbers of a bake, each with where it comes from. */
function AtTheOven({ bake, simulation, runs, width }: AtTheOvenProps) {
  return (
    <>
      <Heading>At the oven</Heading>
      <Fact
        name="Minutes in the oven"
        value={`${bake.fidelity === "coarse" ? "≈ " : ""}${minutesText(bake.minutes)}`}
        why="Until the coldest place of the inside has reached its temperature, computed with heat, water and gas in every part of the section. The range is what the inputs leave open."
        source="docs/science/bake.md; checked against kitchen windows with one set of constants for all kinds."
      />
      {simulation && runs ? <ManyRuns runs={runs} minutes={simulation.done.mid} width={width} /> : null}
      {simulation && simulation.sensitivity.length > 0 ? (
        <Table
          label="What the minutes depend on"
          head={["One step slower", "", "Minutes"]}
          rows={simulation.sensitivity.map(({ input, change: by, percent }) => ({
            key: input,
            cells: [input, by, `${percent > 0 ? "+" : ""}${percent.toFixed(0)} %`],
          }))}
        />
      ) : null}
      <Fact
        name="Look first after"
        value={`${bake.checkAtMinutes} min`}
        why="The early end of the window. Opening the door before costs heat when the crumb is weakest."
      />
      <Fact
        name="Core when done"
        value={`${Math.round(bake.targetCoreC)} °C`}
        why="The coldest place of the inside, a little over half the height. High above the sea it is lower, since water boils cooler there."
      />
      <Fact
        name="Loses in the oven"
        value={`${Math.round(bake.lossPercent.low)}–${Math.round(bake.lossPercent.high)} %`}
        why={
          simulation
            ? `Water that leaves as steam; ${simulation.loss.cooled.toFixed(0)} % by the time it has cooled.`
            : "Water that leaves as steam."
        }
      />
      <Fact
        name={simulation && bake.restBeforeCuttingMinutes < simulation.cutAfterMinutes ? "Eat from" : "Cut after"}
        value={`${Math.round(bake.restBeforeCuttingMinutes)} min`}
        why={
          simulation && bake.restBeforeCuttingMinutes < simulation.cutAfterMinutes
            ? "Its surface no longer burns and the crumb carries itself; nobody slices it."
            : "The inside is under 50 °C by then and its starch has firmed; cut earlier, the knife drags a gummy line. Some bakers cut warm; this is a warning, not a rule."
        }
      />
    </>
  );
}

/** What is known of an oven, in a sentence. */
function ovenWords(profile: OvenProfile | undefined, vessel: Vessel): string {
  if (!profile) return "Not measured: it may be 10 °C off, which moves the minutes by about a tenth.";
  const { biasK, swingK, racks } = profile;
  const off =
    biasK === 0 ? "true to its dial" : `${Math.abs(biasK)} °C ${biasK > 0 ? "hotter" : "cooler"} inside than its dial says`;
  const fits = perRack(profile, vessel);
  const room =
    fits === null
      ? ""
      : fits === 0
        ? " This pan does not go in with air around it."
        : ` ${fits} of this pan ${fits === 1 ? "stands" : "stand"} on a rack with air around ${fits === 1 ? "it" : "them"}${racks === undefined ? "" : `, ${racks} ${racks === 1 ? "rack" : "racks"}`}.`;
  return `It runs ${off} and swings by ${swingK}.${room}`;
}

const styles = StyleSheet.create({
  room: { gap: space.m },
  drawing: { alignItems: "center" },
  fields: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  field: { width: 150 },
});
