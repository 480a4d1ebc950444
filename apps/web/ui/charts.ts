/** Charts weigh a third of the first page: they come when one is looked at. */
export { LineChart } from "react-native-gifted-charts";
