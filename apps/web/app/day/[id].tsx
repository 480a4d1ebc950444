import { useLocalSearchParams } from "expo-router";
import { DayScreen } from "../../features/day/screen";

export default function Day() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <DayScreen id={id} />;
}
