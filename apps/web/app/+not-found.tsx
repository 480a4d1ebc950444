import { usePathname } from "expo-router";
import { NotFound } from "../ui/state";

export default function Nowhere() {
  const at = usePathname();
  return (
    <NotFound title="There is nothing here." to="/" way="To the bench">
      {`${at} is no place of Uprise; the link may be old or not whole.`}
    </NotFound>
  );
}
