import { ReaderScreen } from "../doors/screens";

export default ReaderScreen;
