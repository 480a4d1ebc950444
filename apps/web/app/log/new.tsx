import { useLocalSearchParams } from "expo-router";
import { JudgeScreen } from "../../doors/screens";

export default function NewTrial() {
  const { bake, formula } = useLocalSearchParams<{ bake?: string; formula?: string }>();
  return (
    <JudgeScreen key={`${bake} ${formula}`} {...(bake ? { bakeId: bake } : {})} {...(formula ? { formulaId: formula } : {})} />
  );
}
