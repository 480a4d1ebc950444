import { forHelpers } from "../access/roles";
import { type Photo, photoSchema } from "@uprise/contract";
import sharp from "sharp";
import { z } from "zod";
import { MOST_PIXELS } from "../archive/photo";
import { Refusal } from "../errors";
import { machineFault } from "../problems";
import { FILE_LIMIT } from "../store/files";
import type { Store } from "../store/store";
import { type App, problems } from "../wire";

/** What a photograph is kept as: upright, no larger than this on a side, without metadata. */
const SIDE_PX = 1600;
const QUALITY = 82;
const KINDS = ["image/jpeg", "image/png", "image/webp"];

/** Photographs of bakes: turned upright, made smaller, stripped of place and device, kept by the hash of what is left. Nothing of them is ever executed. */
export function photoRoutes(app: App, store: Store): void {
  app.register(async (scope: App) => {
    scope.addContentTypeParser(KINDS, { parseAs: "buffer", bodyLimit: FILE_LIMIT }, (_, body, done) => done(null, body));
    scope.post(
      "/api/photos",
      { ...forHelpers, bodyLimit: FILE_LIMIT, schema: { summary: "Keep a photograph (JPEG, PNG or WebP, up to 12 MB)", tags: ["log"], response: { 201: photoSchema, ...problems } } },
      async ({ body }, reply) => reply.status(201).send(await kept(store, body)),
    );
    scope.get(
      "/api/photos/:hash",
      { ...forHelpers, schema: { summary: "A photograph", tags: ["log"], params: z.object({ hash: z.string().max(80) }) } },
      async ({ params }, reply) => {
        const { file, content } = await store.files.read(params.hash);
        return reply
          .header("cache-control", "private, max-age=31536000, immutable")
          .header("content-security-policy", "default-src 'none'; sandbox")
          .header("x-content-type-options", "nosniff")
          .type(file.type)
          .send(content);
      },
    );
  });
} // prettier-ignore

async function kept(store: Store, body: unknown): Promise<Photo> {
  if (!Buffer.isBuffer(body) || body.length === 0)
    throw new Refusal(
      "invalid",
      `A photograph is sent as its bytes with its content type; one of ${KINDS.join(", ")} would be right.`,
    );
  try {
    // By what the bytes are, not by what they are called: drawings with scripts or links in them are no photographs.
    const { format } = await sharp(body, { limitInputPixels: MOST_PIXELS }).metadata();
    if (!KINDS.includes(`image/${format}`))
      throw new Refusal("unprocessable", `These bytes are ${format}; JPEG, PNG or WebP would be right.`);
    const { data, info } = await sharp(body, { limitInputPixels: MOST_PIXELS, failOn: "error" })
      .rotate()
      .resize({ width: SIDE_PX, height: SIDE_PX, fit: "inside", withoutEnlargement: true })
      .jpeg({ quality: QUALITY })
      .toBuffer({ resolveWithObject: true });
    const file = await store.files.put(data, "image/jpeg");
    return { ...file, width: info.width, height: info.height };
  } catch (error) {
    const fault = error instanceof Refusal ? error : machineFault(error);
    if (fault) throw fault;
    throw new Refusal(
      "unprocessable",
      "These bytes are no picture that can be read: JPEG, PNG or WebP of up to 60 million pixels would be right.",
    );
  }
}
