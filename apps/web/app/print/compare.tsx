import { useLocalSearchParams } from "expo-router";
import { ComparePage } from "../../doors/screens";
import { PaperTheme } from "../../theme/theme";

export default function Print() {
  const { ids } = useLocalSearchParams<{ ids: string }>();
  return (
    <PaperTheme>
      <ComparePage ids={(ids ?? "").split(",").filter((id) => id !== "")} />
    </PaperTheme>
  );
}
