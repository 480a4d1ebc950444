import { useLocalSearchParams } from "expo-router";
import { CounterScreen } from "../../features/counter/screen";

export default function Counter() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <CounterScreen id={id} />;
}
