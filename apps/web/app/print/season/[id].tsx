import { useLocalSearchParams } from "expo-router";
import { SeasonPage } from "../../../doors/screens";
import { PaperTheme } from "../../../theme/theme";

export default function Print() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <PaperTheme>
      <SeasonPage id={id} />
    </PaperTheme>
  );
}
