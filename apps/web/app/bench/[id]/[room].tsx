import { RoomView } from "../../../features/formula/room-view";

export default RoomView;
