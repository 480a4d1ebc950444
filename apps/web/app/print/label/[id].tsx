import { useLocalSearchParams } from "expo-router";
import { LabelSheet } from "../../../doors/screens";
import { PaperTheme } from "../../../theme/theme";

export default function Print() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <PaperTheme>
      <LabelSheet id={id} />
    </PaperTheme>
  );
}
