import { PageScreen } from "../doors/screens";

export default PageScreen;
