declare module "*.ttf" {
  const asset: number;
  export default asset;
}
/** The part of it that reads files has no types of its own. */
declare module "pdfjs-dist/legacy/build/pdf.worker.mjs" {
  export const WorkerMessageHandler: unknown;
}
declare module "react-native-web" {
  export function unstable_createElement(tag: string, props: object): import("react").ReactElement;
}
