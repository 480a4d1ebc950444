import { useLocalSearchParams } from "expo-router";
import { LogPlace } from "../../../doors/screens";

export default function TrialPlace() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <LogPlace id={id} />;
}
