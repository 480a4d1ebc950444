import { useLocalSearchParams } from "expo-router";
import { StoreScreen } from "../../doors/screens";
import { shelfFrom } from "../../features/store/shelf-names";
import { NotFound } from "../../ui/state";

export default function StoreShelf() {
  const { shelf: name } = useLocalSearchParams<{ shelf: string }>();
  const shelf = shelfFrom(name);
  if (shelf) return <StoreScreen shelf={shelf} />;
  return (
    <NotFound title={`The store has no “${name}”.`} to="/store" way="To the store">
      It has ingredients, packets, pans, ovens, devices, copies, who comes in, and settings.
    </NotFound>
  );
}
