import { useLocalSearchParams } from "expo-router";
import { ManyPage } from "../../../doors/screens";
import { PaperTheme } from "../../../theme/theme";

const numberOf = (text: string | undefined, usual: number): number => {
  const n = Number(text);
  return Number.isFinite(n) && n > 0 ? n : usual;
};

export default function PrintMany() {
  const { id, pieces, bowl, places } = useLocalSearchParams<{ id: string; pieces?: string; bowl?: string; places?: string }>();
  return (
    <PaperTheme>
      <ManyPage
        id={id}
        pieces={Math.min(2000, numberOf(pieces, 40))}
        bowlL={Math.min(300, numberOf(bowl, 10))}
        places={Math.min(2000, numberOf(places, 6))}
      />
    </PaperTheme>
  );
}
