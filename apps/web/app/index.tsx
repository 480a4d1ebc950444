import { BenchHome } from "../doors/screens";

export default BenchHome;
