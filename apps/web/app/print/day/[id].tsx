import { useLocalSearchParams } from "expo-router";
import { DayPage } from "../../../doors/screens";
import { PaperTheme } from "../../../theme/theme";

export default function PrintDay() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <PaperTheme>
      <DayPage id={id} />
    </PaperTheme>
  );
}
