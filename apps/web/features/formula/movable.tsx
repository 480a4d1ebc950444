import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { type ReactNode, useMemo } from "react";
import { Block } from "../../ui/dom";

const told = {
  draggable:
    "Space takes hold of the line, the arrows move it, also into another component; Space again lets it go there, Escape puts it back.",
};
/** A finger that rests takes hold; one that slides scrolls. */
const HOLD_MS = 220;

/** Lines that are moved by hand or by keyboard, within their list and from one to the other. */
export function Movable({ onDrop, children }: { onDrop: (event: DragEndEvent) => void; children: ReactNode }) {
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: HOLD_MS, tolerance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={onDrop}
      accessibility={{ screenReaderInstructions: told }}
    >
      {children}
    </DndContext>
  );
}

/** One list of lines; an empty one can still be let go on. */
export function Lines({ id, label, ids, children }: { id: string; label: string; ids: readonly string[]; children: ReactNode }) {
  const { setNodeRef } = useDroppable({ id });
  const key = ids.join(" ");
  const items = useMemo(() => key.split(" ").filter((part) => part !== ""), [key]);
  return (
    <SortableContext id={id} items={items} strategy={verticalListSortingStrategy}>
      <Block role="list" aria-label={label} ref={setNodeRef} style={{ display: "flex", flexDirection: "column", minHeight: 8 }}>
        {children}
      </Block>
    </SortableContext>
  );
}
