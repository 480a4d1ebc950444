import { StoreScreen } from "../../features/store/screen";

export default function Store() {
  return <StoreScreen shelf="ingredients" />;
}
