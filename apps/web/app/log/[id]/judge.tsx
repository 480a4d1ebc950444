import { useLocalSearchParams } from "expo-router";
import { JudgeScreen } from "../../../doors/screens";

export default function JudgePlace() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <JudgeScreen key={id} trialId={id} />;
}
