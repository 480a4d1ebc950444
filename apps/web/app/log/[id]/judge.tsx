import { useLocalSearchParams } from "expo-router";
import { JudgeScreen } from "../../../features/log/judge-screen";

export default function JudgePlace() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <JudgeScreen key={id} trialId={id} />;
}
