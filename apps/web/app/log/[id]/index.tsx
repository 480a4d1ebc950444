import { useLocalSearchParams } from "expo-router";
import { TrialScreen } from "../../../doors/screens";

export default function TrialPlace() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <TrialScreen key={id} id={id} />;
}
