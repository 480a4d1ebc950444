import { useLocalSearchParams } from "expo-router";
import { TrialPage } from "../../../features/log/print-page";
import { PaperTheme } from "../../../theme/theme";

export default function Print() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <PaperTheme>
      <TrialPage id={id} />
    </PaperTheme>
  );
}
