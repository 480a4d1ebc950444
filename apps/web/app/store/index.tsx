import { StoreScreen } from "../../doors/screens";

export default function Store() {
  return <StoreScreen shelf="ingredients" />;
}
