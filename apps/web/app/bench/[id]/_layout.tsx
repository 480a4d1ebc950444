import { Slot, useGlobalSearchParams, useLocalSearchParams } from "expo-router";
import { roomFrom } from "../../../features/formula/rooms";
import { BenchScreen } from "../../../doors/screens";
import { NotFound } from "../../../ui/state";

export default function BenchLayout() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { room: name, of } = useGlobalSearchParams<{ room?: string; of?: string }>();
  const room = roomFrom(name);
  if (room === undefined)
    return (
      <NotFound title={`There is no room “${name}”.`} to={`/bench/${id}`} way="To the sheet">
        A bench has the rooms lift, body, fill, bake, balance, swap, parts and versions.
      </NotFound>
    );
  return (
    <BenchScreen id={id} room={room} replace={of ?? null}>
      <Slot />
    </BenchScreen>
  );
}
