import { useLocalSearchParams } from "expo-router";
import { TrialScreen } from "../../../features/log/trial-screen";

export default function TrialPlace() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <TrialScreen key={id} id={id} />;
}
