import { RoomView } from "../../../doors/screens";

export default RoomView;
