import { useLocalSearchParams } from "expo-router";
import { BenchScreen } from "../../features/bench/screen";

export default function BenchRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <BenchScreen id={id} />;
}
