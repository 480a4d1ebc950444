import { useLocalSearchParams } from "expo-router";
import { CounterScreen } from "../../doors/screens";

export default function Counter() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <CounterScreen id={id} />;
}
