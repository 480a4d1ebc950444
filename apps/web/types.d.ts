declare module "*.ttf" {
  const asset: number;
  export default asset;
}
declare module "react-native-web" {
  export function unstable_createElement(tag: string, props: object): import("react").ReactElement;
}
