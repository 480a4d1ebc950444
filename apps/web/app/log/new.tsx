import { useLocalSearchParams } from "expo-router";
import { JudgeScreen } from "../../features/log/judge-screen";

export default function NewTrial() {
  const { bake, formula } = useLocalSearchParams<{ bake?: string; formula?: string }>();
  return (
    <JudgeScreen key={`${bake} ${formula}`} {...(bake ? { bakeId: bake } : {})} {...(formula ? { formulaId: formula } : {})} />
  );
}
