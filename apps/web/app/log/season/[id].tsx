import { useLocalSearchParams } from "expo-router";
import { SeasonScreen } from "../../../doors/screens";

export default function Season() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <SeasonScreen key={id} id={id} />;
}
