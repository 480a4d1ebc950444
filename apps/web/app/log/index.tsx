import { LogPlace } from "../../doors/screens";

export default function Log() {
  return <LogPlace />;
}
