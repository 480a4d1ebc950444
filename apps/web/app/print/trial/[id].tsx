import { useLocalSearchParams } from "expo-router";
import { TrialPage } from "../../../doors/screens";
import { PaperTheme } from "../../../theme/theme";

export default function Print() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <PaperTheme>
      <TrialPage id={id} />
    </PaperTheme>
  );
}
