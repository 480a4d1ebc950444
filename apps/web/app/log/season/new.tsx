import { useLocalSearchParams } from "expo-router";
import { BeginSeason } from "../../../doors/screens";

export default function NewSeason() {
  const { formula } = useLocalSearchParams<{ formula?: string }>();
  return <BeginSeason key={formula} {...(formula ? { formulaId: formula } : {})} />;
}
