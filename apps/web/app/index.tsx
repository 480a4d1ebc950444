import { BenchHome } from "../features/bench/home";

export default BenchHome;
