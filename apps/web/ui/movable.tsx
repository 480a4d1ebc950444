import {
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  type KeyboardCoordinateGetter,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  type UniqueIdentifier,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { SortableContext, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { type ReactNode, useMemo } from "react";
import { StyleSheet } from "react-native";
import { Block } from "./dom";
import { letScroll } from "./let-scroll";

/** A finger that rests takes hold; one that slides scrolls. */
const HOLD_MS = 220;

/** An arrow goes to the next line down or up the sheet, whatever component it stands in. */
const nextOver: KeyboardCoordinateGetter = (
  event,
  { context: { active, over, collisionRect, droppableRects, droppableContainers } },
) => {
  const way = event.code === "ArrowDown" ? 1 : event.code === "ArrowUp" ? -1 : 0;
  if (way === 0 || !active || !collisionRect) return undefined;
  event.preventDefault();
  const places = droppableContainers
    .getEnabled()
    .flatMap(({ id }) => {
      const rect = droppableRects.get(id);
      return rect ? [{ id, left: rect.left, middle: rect.top + rect.height / 2 }] : [];
    })
    .sort((a, b) => a.middle - b.middle);
  const here = places.findIndex(({ id }) => id === (over?.id ?? active.id));
  const next = places[here + way];
  return next ? { x: next.left, y: next.middle - collisionRect.height / 2 } : undefined;
};

/** Rows that are moved by hand or by keyboard, within their list and from one to the other. */
export function Movable({
  nameOf,
  how,
  onDrop,
  children,
}: {
  /** What the keyboard does with them, for who cannot see it. */
  how: string;
  /** What is moved is called, by the id it moves under. */
  nameOf: (id: string) => string;
  onDrop: (event: DragEndEvent) => void;
  children: ReactNode;
}) {
  const name = ({ id }: { id: UniqueIdentifier }): string => nameOf(String(id));
  const announcements: Announcements = {
    onDragStart: ({ active }) => `You have taken hold of ${name(active)}.`,
    onDragOver: ({ active, over }) => (over ? `${name(active)} is at ${name(over)}.` : `${name(active)} is at no line.`),
    onDragEnd: ({ active, over }) => (over ? `${name(active)} is put at ${name(over)}.` : `${name(active)} is back where it was.`),
    onDragCancel: ({ active }) => `${name(active)} is back where it was.`,
  };
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: HOLD_MS, tolerance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: nextOver }),
  );
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragStart={({ activatorEvent }) => letScroll(activatorEvent.target)}
      onDragEnd={onDrop}
      accessibility={{ screenReaderInstructions: { draggable: how }, announcements }}
    >
      {children}
    </DndContext>
  );
}

/** One list of lines; an empty one can still be let go on. */
export function Lines({ id, label, ids, children }: { id: string; label: string; ids: readonly string[]; children: ReactNode }) {
  // A list with lines is let go on by its lines.
  const { setNodeRef } = useDroppable({ id, disabled: ids.length > 0 });
  const key = ids.join(" ");
  const items = useMemo(() => key.split(" ").filter((part) => part !== ""), [key]);
  return (
    <SortableContext id={id} items={items} strategy={verticalListSortingStrategy}>
      <Block role="list" aria-label={label} ref={setNodeRef} style={styles.lines}>
        {children}
      </Block>
    </SortableContext>
  );
}

const styles = StyleSheet.create({ lines: { display: "flex", flexDirection: "column", minHeight: 8, margin: 0, padding: 0 } });
