import { TastingScreen } from "../../features/log/tasting-screen";

export default TastingScreen;
