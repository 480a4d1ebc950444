import { useLocalSearchParams } from "expo-router";
import { PaperTheme } from "../../../theme/theme";
import { FormulaPage } from "../../../features/formula/print-page";

export default function PrintFormula() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <PaperTheme>
      <FormulaPage id={id} />
    </PaperTheme>
  );
}
