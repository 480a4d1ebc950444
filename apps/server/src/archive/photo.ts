import type sharp from "sharp";

/** A picture that unfolds to more than this is a bomb. */
export const MOST_PIXELS = 60_000_000;

/** Whether bytes are a photograph as this program keeps them: a JPEG of a bounded size, without place, device or anything else besides. */
export async function isKeptPhoto(read: typeof sharp, bytes: Buffer): Promise<boolean> {
  try {
    const { format, width = 0, height = 0, exif, iptc, xmp } = await read(bytes, { limitInputPixels: MOST_PIXELS }).metadata();
    return format === "jpeg" && width * height <= MOST_PIXELS && !exif && !iptc && !xmp;
  } catch {
    return false;
  }
}
