import { BenchHome } from "../features/formula/home";

export default BenchHome;
