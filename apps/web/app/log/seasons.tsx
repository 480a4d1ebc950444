import { SeasonsScreen } from "../../doors/screens";

export default SeasonsScreen;
