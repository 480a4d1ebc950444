import { BenchHome, Welcome } from "../doors/screens";

export default function Home() {
  return <BenchHome first={<Welcome />} />;
}
