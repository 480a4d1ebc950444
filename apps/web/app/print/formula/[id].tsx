import { useLocalSearchParams } from "expo-router";
import { PaperTheme } from "../../../theme/theme";
import { FormulaPage } from "../../../doors/screens";

export default function PrintFormula() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <PaperTheme>
      <FormulaPage id={id} />
    </PaperTheme>
  );
}
