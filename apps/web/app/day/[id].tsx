import { useLocalSearchParams } from "expo-router";
import { DayScreen } from "../../doors/screens";

export default function Day() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <DayScreen id={id} />;
}
