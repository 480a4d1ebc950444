import type { DragEndEvent } from "@dnd-kit/core";
import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import type { BakeStage, Edit, Formula, Heat } from "@uprise/core";
import { heatName, heats, layoutName, layOut, layouts, MOST_STAGES, ovenLimits, stageMinutes, stageText } from "@uprise/core/page";
import GripVertical from "lucide-react-native/icons/grip-vertical";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space, touch } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Check } from "../../ui/check";
import { Choice } from "../../ui/choice";
import { Block, PlainButton } from "../../ui/dom";
import { focusSoon } from "../../ui/focus";
import { Lines, Movable } from "../../ui/movable";
import { NumberField } from "../../ui/number-field";
import { Button, Press } from "../../ui/press";
import { Body, Small } from "../../ui/words";

type Until = NonNullable<BakeStage["until"]> | "minutes" | "done";

const HOW_TO_MOVE = "Space takes hold of the stage, the arrows move it; Space again lets it go there, Escape puts it back.";

/** What is shared out among stages where nothing is computed. */
const USUAL_MINUTES = 30;

interface StagesProps {
  formula: Formula;
  /** What the bake takes as it stands, min: what a new course is laid out for. */
  /** Of the bake as it is computed; null where there is none. */
  minutes: number | null;
  edit: (edit: Edit) => void;
}

/** A stage without what is not said: the store keeps no empty fields. */
const tidy = (stage: { [Key in keyof BakeStage]: BakeStage[Key] | undefined }): BakeStage =>
  Object.fromEntries(Object.entries(stage).filter(([, value]) => value !== undefined && value !== false)) as BakeStage;

/** In what stages a bake goes: laid out from a few courses, changed, moved by hand or by keyboard. */
export function Stages({ formula, minutes: computed, edit }: StagesProps) {
  const minutes = computed ?? USUAL_MINUTES;
  const { oven, process } = formula;
  const { stages = [] } = process;
  const [open, setOpen] = useState<number | null>(null);
  const set = (next: BakeStage[]): void => {
    // Every stage but the last has an end: one that moves up from the end gets what is left of the bake.
    const ended = next.map((stage, k) =>
      k === next.length - 1 || stage.minutes !== undefined || stage.until !== undefined
        ? stage
        : { ...stage, minutes: Math.max(1, Math.round(minutes / next.length)) },
    );
    edit(
      ended.length === 0 ? { edit: "set-process", set: {}, clear: ["stages"] } : { edit: "set-process", set: { stages: ended } },
    );
  };
  const move = (from: number, to: number): void => {
    const moved = stages[from];
    if (!moved || to < 0 || to >= stages.length || from === to) return;
    const rest = stages.filter((_, k) => k !== from);
    set([...rest.slice(0, to), moved, ...rest.slice(to)]);
    setOpen((at) => (at === from ? to : null));
    focusSoon(`[data-testid="stage-${to}"]`);
  };
  const drop = ({ active, over }: DragEndEvent): void => {
    if (over) move(Number(active.id), Number(over.id));
  };
  const here = { mode: oven.mode ?? ("still" as const), celsius: oven.celsius };
  return (
    <View style={styles.stages}>
      {stages.length === 0 ? (
        <Small tone="faint">
          One oven from beginning to end. Lay out stages where it is covered, moved, topped or finished elsewhere:
        </Small>
      ) : (
        <Movable
          how={HOW_TO_MOVE}
          nameOf={(id) => {
            const stage = stages[Number(id)];
            return stage ? `stage ${Number(id) + 1}, ${stageText(stage, here)}` : "the stages";
          }}
          onDrop={drop}
        >
          <Lines id="stages" label="Stages of the bake" ids={stages.map((_, k) => String(k))}>
            {stages.map((stage, k) => (
              <StageRow
                // Stages have no name of their own: they are what stands at their place.
                key={k}
                at={k}
                stage={stage}
                last={k === stages.length - 1}
                count={stages.length}
                here={here}
                dial={oven.dial === "F"}
                walled={formula.vessel.shape !== "free" && formula.vessel.shape !== "griddle"}
                open={open === k}
                onOpen={() => setOpen(open === k ? null : k)}
                onChange={(next) => set(stages.map((one, i) => (i === k ? next : one)))}
                onMove={move}
                onRemove={() => {
                  set(stages.filter((_, i) => i !== k));
                  setOpen(null);
                }}
              />
            ))}
          </Lines>
        </Movable>
      )}
      <View style={styles.row}>
        {stages.length === 0
          ? layouts.map((layout) => (
              <Button key={layout} kind="quiet" onPress={() => set(layOut(layout, minutes, oven.celsius))}>
                {layoutName[layout]}
              </Button>
            ))
          : [
              ...(stages.length < MOST_STAGES
                ? [
                    <Button
                      key="add"
                      onPress={() => {
                        set([...stages, {}]);
                        setOpen(stages.length);
                      }}
                    >
                      Add a stage
                    </Button>,
                  ]
                : []),
              <Button
                key="none"
                kind="quiet"
                onPress={() => {
                  set([]);
                  setOpen(null);
                }}
              >
                One stage again
              </Button>,
            ]}
      </View>
    </View>
  );
}

interface StageRowProps {
  stage: BakeStage;
  at: number;
  count: number;
  last: boolean;
  here: { mode: Heat; celsius: number };
  dial: boolean;
  walled: boolean;
  open: boolean;
  onOpen: () => void;
  onChange: (stage: BakeStage) => void;
  onMove: (from: number, to: number) => void;
  onRemove: () => void;
}

function StageRow({ stage, at, count, last, here, dial, walled, open, onOpen, onChange, onMove, onRemove }: StageRowProps) {
  const colours = useColours();
  const { setNodeRef, setActivatorNodeRef, listeners, attributes, transform, transition, isDragging } = useSortable({
    id: String(at),
  });
  const mode = stage.mode ?? here.mode;
  const change = (part: { [Key in keyof BakeStage]?: BakeStage[Key] | undefined }): void => onChange(tidy({ ...stage, ...part }));
  const minutes = stageMinutes(stage);
  const until: Until = minutes !== null ? "minutes" : (stage.until ?? "done");
  const text = stageText(stage, here);
  return (
    <Block
      role="listitem"
      ref={setNodeRef}
      style={StyleSheet.flatten([
        styles.stage,
        { borderBottomColor: colours.rule },
        isDragging ? { zIndex: 2, backgroundColor: colours.sunk } : null,
        transform ? ({ transform: CSS.Translate.toString(transform), transition } as object) : null,
      ])}
    >
      <View style={styles.head}>
        <PlainButton
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          aria-label={`Move stage ${at + 1}`}
          style={styles.handle}
        >
          <GripVertical size={20} color={colours.ink} />
        </PlainButton>
        <Press testID={`stage-${at}`} onPress={onOpen} aria-expanded={open} style={styles.name}>
          <Body strong={open}>{`${at + 1}. ${text}`}</Body>
        </Press>
      </View>
      {open ? (
        <View style={styles.inside}>
          <Choice
            label={`Stage ${at + 1}, heat`}
            options={heats.map((value) => ({ value, label: heatName[value] }))}
            value={mode}
            onChange={(value) => change({ mode: value === here.mode ? undefined : value })}
          />
          <Choice
            label={`Stage ${at + 1}, how long`}
            options={[
              { value: "minutes" as const, label: "For minutes" },
              { value: "set" as const, label: "Until set" },
              { value: "golden" as const, label: "Until golden" },
              { value: "dry" as const, label: "Until dry on top" },
              ...(last ? [{ value: "done" as const, label: "Until done" }] : []),
            ]}
            value={until}
            onChange={(value) =>
              change({
                minutes: value === "minutes" ? 10 : undefined,
                until: value === "minutes" || value === "done" ? undefined : value,
              })
            }
          />
          <View style={styles.row}>
            {minutes === null ? null : (
              <NumberField
                label="Minutes"
                unit="min"
                least={0.5}
                most={600}
                value={minutes}
                onChange={(value) => value !== undefined && change({ minutes: value })}
                style={styles.field}
              />
            )}
            {mode === "counter" ? null : (
              <NumberField
                label={mode === "hob" ? "Plate" : "Heat"}
                unit="°C"
                least={ovenLimits.least}
                most={ovenLimits.most}
                optional
                value={stage.celsius ?? (mode === here.mode ? here.celsius : undefined)}
                fahrenheit={dial}
                onChange={(celsius) => change({ celsius })}
                style={styles.field}
              />
            )}
          </View>
          <View style={styles.row}>
            <Check label="Covered" on={stage.covered === true} onChange={(covered) => change({ covered })} />
            {walled ? <Check label="Out of its tin" on={stage.free === true} onChange={(free) => change({ free })} /> : null}
            {walled ? null : <Check label="Turned over" on={stage.turned === true} onChange={(turned) => change({ turned })} />}
            <Check label="Topping goes on" on={stage.topped === true} onChange={(topped) => change({ topped })} />
          </View>
          <View style={styles.row}>
            <Button kind="quiet" disabled={at === 0} label={`Stage ${at + 1} earlier`} onPress={() => onMove(at, at - 1)}>
              Earlier
            </Button>
            <Button kind="quiet" disabled={last} label={`Stage ${at + 1} later`} onPress={() => onMove(at, at + 1)}>
              Later
            </Button>
            <Button kind="quiet" label={count === 1 ? "Without stages" : `Take stage ${at + 1} away`} onPress={onRemove}>
              Take away
            </Button>
          </View>
        </View>
      ) : null}
    </Block>
  );
}

const styles = StyleSheet.create({
  stages: { gap: space.s },
  row: { flexDirection: "row", flexWrap: "wrap", gap: space.m, alignItems: "center" },
  stage: { display: "flex", flexDirection: "column", borderWidth: 0, borderStyle: "solid", borderBottomWidth: 1 },
  head: { flexDirection: "row", alignItems: "center" },
  handle: {
    display: "flex",
    alignItems: "center",
    justifyContent: "center",
    width: touch.least,
    minHeight: touch.least,
    borderWidth: 0,
    backgroundColor: "transparent",
    cursor: "pointer",
  },
  name: { flex: 1, minHeight: touch.least },
  inside: { gap: space.m, paddingBottom: space.m, paddingLeft: space.m },
  field: { width: 140 },
});
