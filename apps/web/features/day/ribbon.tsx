import {
  type Announcements,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  useDraggable,
  useSensor,
  type UniqueIdentifier,
  useSensors,
} from "@dnd-kit/core";
import type { Plan, PlannedStep } from "@uprise/core";
import { useEffect, useState } from "react";
import { StyleSheet, View, type ViewStyle } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Block } from "../../ui/dom";
import { letScroll } from "../../ui/let-scroll";
import { Small } from "../../ui/words";
import { clockOf, isoLike, markOf, minutesBetween } from "./times";

/** What the styles of the framework do not name. */
const grab = { cursor: "grab" } as unknown as ViewStyle;
const PER_MINUTE = 3.2;
const HALF_HOUR = 30;
const MOMENTS = "moments";
/** A line of the list of short tasks, px. */
const LINE_PX = 15;
/** A step's name is written in it from this height on, px. */
const NAMED_FROM = 13;
const LEFT = 48;
const HOLD_MS = 220;

/** The day down one axis of time: hands, ovens, and what stands in them; a bake is moved along it by hand or by keyboard. */
export function Ribbon({
  plan,
  now,
  onMove,
  shown,
  onShow,
}: {
  plan: Plan;
  now: number;
  /** A bake was put so that it goes into the oven at a time. */
  onMove?: (bakeId: string, at: string) => void;
  shown: string | null;
  onShow: (bakeId: string) => void;
}) {
  const colours = useColours();
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: HOLD_MS, tolerance: 8 } }),
    useSensor(KeyboardSensor),
  );
  const from = Date.parse(plan.steps[0]?.start ?? plan.start);
  const zero = Math.floor(from / (HALF_HOUR * 60_000)) * HALF_HOUR * 60_000;
  const zeroIso = isoLike(zero, plan.start);
  const minutes = Math.max(HALF_HOUR, Math.ceil(minutesBetween(zeroIso, plan.end) / 15) * 15);
  const top = (iso: string): number => minutesBetween(zeroIso, iso) * PER_MINUTE;
  const marks = new Map(plan.bakes.map(({ id }, k) => [id, markOf(k)]));
  const used = plan.ovens.filter(({ id }) => plan.steps.some(({ resources }) => resources.includes(id)));
  const hands = runsOf(plan.steps.filter(({ resources }) => resources.includes("hands")));
  const short = hands.filter((run) => heightOf(run) < NAMED_FROM);
  const columns = [{ id: "hands", name: "Hands" }, ...(short.length > 0 ? [{ id: MOMENTS, name: "Short tasks" }] : []), ...(plan.steps.some(({ resources }) => resources.includes("mixer")) ? [{ id: "mixer", name: "Mixer" }] : []), ...used]; // prettier-ignore
  const nowAt = ((now - zero) / 60_000) * PER_MINUTE;
  const named = (id: UniqueIdentifier): string => {
    const step = plan.steps.find((one) => one.id === id);
    return plan.bakes.find((bake) => bake.id === step?.bakeId)?.title ?? "the bake";
  };
  const announcements: Announcements = {
    onDragStart: ({ active }) => `You have taken hold of ${named(active.id)}.`,
    onDragOver: () => undefined,
    onDragEnd: ({ active }) => `${named(active.id)} is put down; the day is planned around it.`,
    onDragCancel: ({ active }) => `${named(active.id)} is back where it was.`,
  };
  const drop = ({ active, delta }: DragEndEvent): void => {
    const step = plan.steps.find(({ id }) => id === active.id);
    if (!step || !onMove || Math.abs(delta.y) < PER_MINUTE) return;
    const moved = Math.round(delta.y / PER_MINUTE / 5) * 5;
    if (moved !== 0) onMove(step.bakeId, isoLike(Date.parse(step.start) + moved * 60_000, plan.start));
  };
  return (
    <DndContext sensors={sensors} onDragStart={({ activatorEvent }) => letScroll(activatorEvent.target)} onDragEnd={drop} accessibility={{ announcements, screenReaderInstructions: { draggable: "Space takes hold of the bake, the arrows move it along the day, Space puts it down, Escape leaves it." } }}>
      <View style={styles.heads} aria-hidden>
        {columns.map(({ id, name }) => (
          <View key={id} style={[styles.head, { borderBottomColor: colours.strongRule }]}>
            <Small strong lines={1}>
              {name}
            </Small>
          </View>
        ))}
      </View>
      <View style={{ height: minutes * PER_MINUTE + 8 }} role="group" aria-label="The ribbon of the day">
        {Array.from({ length: Math.floor(minutes / HALF_HOUR) + 1 }, (_, k) => (
          <View key={k} aria-hidden style={[styles.line, { top: k * HALF_HOUR * PER_MINUTE, borderTopColor: colours.rule }]}>
            <Small tone="faint" style={styles.hour}>
              {clockOf(isoLike(zero + k * HALF_HOUR * 60_000, plan.start))}
            </Small>
          </View>
        ))}
        <View style={styles.columns}>
          {columns.map(({ id }) => (
            <View key={id} style={[styles.column, { borderLeftColor: colours.rule }]}>
              {id === MOMENTS
                ? oneUnderAnother(short, top).map(({ run, at }) => <Moment key={run.step.id} run={run} at={at} mark={marks.get(run.step.bakeId) ?? ""} shown={shown === null || shown === run.step.bakeId} onShow={() => onShow(run.step.bakeId)} />)
                : null}
              {inLanes(id === MOMENTS ? [] : id === "hands" ? hands.filter((run) => !short.includes(run)) : runsOf(plan.steps.filter(({ resources }) => resources.includes(id)))).map((run) => (
                <StepBlock key={run.step.id} run={run} mark={marks.get(run.step.bakeId) ?? ""} top={top(run.step.start)} height={Math.max(4, minutesBetween(run.step.start, run.end) * PER_MINUTE - 1)} lane={run.lane} lanes={run.lanes} movable={run.step.kind === "bake" && onMove !== undefined} shown={shown === null || shown === run.step.bakeId} onShow={() => onShow(run.step.bakeId)} />
              ))}
            </View>
          ))}
        </View>
        {nowAt >= 0 && nowAt <= minutes * PER_MINUTE ? (
          <View style={[styles.now, { top: nowAt, borderTopColor: colours.heat }]}>
            <Small strong tone="heat">{`now ${clockOf(isoLike(now, plan.start))}`}</Small>
          </View>
        ) : null}
      </View>
    </DndContext>
  ); // prettier-ignore
}

/** What one bake asks of the hands without a pause is one block: its steps are named in it. */
interface Run {
  step: PlannedStep;
  end: string;
  steps: PlannedStep[];
}

function runsOf(steps: readonly PlannedStep[]): Run[] {
  const runs: Run[] = [];
  for (const step of steps) {
    const last = runs.at(-1);
    const goesOn =
      last &&
      last.end === step.start &&
      last.step.bakeId === step.bakeId &&
      last.step.batch === step.batch &&
      step.needs !== "oven";
    if (last && goesOn) {
      last.steps.push(step);
      last.end = step.end;
    } else runs.push({ step, end: step.end, steps: [step] });
  }
  return runs;
}

const heightOf = ({ step, end }: Run): number => minutesBetween(step.start, end) * PER_MINUTE - 1;

/** Short tasks as a list beside the hour: each at its minute, or under the one before. */
function oneUnderAnother(runs: readonly Run[], top: (iso: string) => number): { run: Run; at: number }[] {
  let free = -Infinity;
  return runs.map((run) => {
    const at = Math.max(top(run.step.start) - LINE_PX / 2, free);
    free = at + LINE_PX;
    return { run, at };
  });
}

/** A task of a minute or two: its minute and what it is. */
function Moment({ run: { step, steps, end }, at, mark, shown, onShow }: { run: Run; at: number; mark: string; shown: boolean; onShow: () => void }) {
  const told = steps.map((one) => one.words).join("; ");
  const span = `${clockOf(step.start)} to ${clockOf(end)}`;
  return (
    <Block role="img" aria-label={`${span}, ${mark}: ${told}`} title={`${span}: ${told}`} onClick={onShow} style={StyleSheet.flatten([styles.moment, { top: at, opacity: shown ? 1 : 0.35 }])}>
      <Small lines={1} style={styles.words}>{`${clockOf(step.start)} ${mark} ${steps.map(nameOf).join(", ")}`}</Small>
    </Block>
  );
} // prettier-ignore

/** Runs that go on at once stand side by side. */
function inLanes(runs: readonly Run[]): (Run & { lane: number; lanes: number })[] {
  const ends: number[] = [];
  const placed = runs.map((run) => {
    const start = Date.parse(run.step.start);
    let lane = ends.findIndex((end) => end <= start);
    if (lane < 0) lane = ends.length;
    ends[lane] = Date.parse(run.end);
    return { ...run, lane };
  });
  return placed.map((one) => {
    const [start, end] = [Date.parse(one.step.start), Date.parse(one.end)];
    const beside = placed.filter((other) => Date.parse(other.step.start) < end && Date.parse(other.end) > start);
    return { ...one, lanes: Math.max(...beside.map(({ lane }) => lane)) + 1 };
  });
}

interface StepBlockProps {
  run: Run;
  mark: string;
  top: number;
  height: number;
  lane: number;
  lanes: number;
  movable: boolean;
  shown: boolean;
  onShow: () => void;
}

function StepBlock({ run: { step, steps, end }, mark, top, height, lane, lanes, movable, shown, onShow }: StepBlockProps) {
  const colours = useColours();
  const { setNodeRef, listeners, attributes, transform, isDragging } = useDraggable({ id: step.id, disabled: !movable });
  const hot = step.kind === "bake";
  const heating = step.kind === "preheat";
  const words = hot ? mark : `${mark} ${steps.map(nameOf).join(", ")}`;
  const told = steps.map((one) => one.words).join("; ");
  const span = `${clockOf(step.start)} to ${clockOf(end)}`;
  return (
    <Block
      ref={setNodeRef}
      {...(movable ? { ...listeners, ...attributes } : { role: "img" })}
      {...(movable ? {} : { tabIndex: undefined })}
      onClick={onShow}
      aria-label={hot ? `${mark} ${clockOf(step.start)} to ${clockOf(end)}: ${told}` : `${span}, ${mark}: ${told}`}
      title={`${span}: ${told}`}
      style={StyleSheet.flatten([
        styles.block,
        {
          top: top + (isDragging ? (transform?.y ?? 0) : 0),
          height,
          left: `${(lane / lanes) * 100}%`,
          width: `${100 / lanes}%`,
          backgroundColor: hot ? colours.ink : heating ? "transparent" : colours.sunk,
          borderColor: hot || !heating ? colours.ink : colours.faint,
          borderStyle: heating ? ("dashed" as const) : ("solid" as const),
          opacity: shown ? 1 : 0.35,
          zIndex: isDragging ? 3 : 1,
          ...(movable ? grab : null),
        },
      ])}
    >
      {height >= NAMED_FROM || hot ? (
        <Small strong={hot} tone={hot ? "paper" : "ink"} lines={Math.max(1, Math.floor(height / 16))} style={styles.words}>
          {heating ? `heats ${mark}` : words}
          {hot ? ` ${clockOf(step.start)}` : ""}
        </Small>
      ) : null}
    </Block>
  );
}

const shortNames: Partial<Record<PlannedStep["kind"], string>> = {
  dry: "whisk dry", wet: "stir wet", combine: "combine", fold: "fold in", portion: "fill", pan: "pan", out: "out", glaze: "glaze", cut: "cut", wrap: "wrap", top: "top", serve: "serve", prepare: "make ready", component: "filling", cream: "cream", whisk: "whisk", "cut-in": "cut in",
}; // prettier-ignore
const nameOf = ({ kind }: PlannedStep): string => shortNames[kind] ?? kind;

/** The time, told anew every half minute. */
export function useNow(everyMs = 30_000): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), everyMs);
    return () => clearInterval(timer);
  }, [everyMs]);
  return now;
}

const styles = StyleSheet.create({
  heads: { flexDirection: "row", marginLeft: LEFT },
  head: { flex: 1, minWidth: 0, borderBottomWidth: 1.5, paddingHorizontal: space.xs },
  line: { position: "absolute", left: 0, right: 0, borderTopWidth: 1 },
  hour: { width: LEFT, fontVariant: ["tabular-nums"] },
  columns: { position: "absolute", left: LEFT, right: 0, top: 0, bottom: 0, flexDirection: "row" },
  column: { flex: 1, minWidth: 0, borderLeftWidth: 1 },
  block: { position: "absolute", display: "flex", boxSizing: "border-box", borderWidth: 1, overflow: "hidden", paddingLeft: 3 },
  moment: { position: "absolute", left: 3, right: 0, height: 15, overflow: "hidden" },
  words: { lineHeight: 15, fontSize: 13 },
  now: { position: "absolute", left: 0, right: 0, borderTopWidth: 2, zIndex: 4, pointerEvents: "none" },
}); // prettier-ignore
