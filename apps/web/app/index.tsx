import { BenchHome, ReaderScreen } from "../doors/screens";

export default function Home() {
  return <BenchHome empty={<ReaderScreen />} />;
}
