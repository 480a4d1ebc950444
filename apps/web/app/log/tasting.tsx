import { TastingScreen } from "../../doors/screens";

export default TastingScreen;
