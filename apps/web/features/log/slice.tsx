import { useMutation } from "@tanstack/react-query";
import type { CutFace, CutFaceResult } from "@uprise/core";
import { correctedAt, evennessWord } from "@uprise/core/page-log";
import { useEffect, useRef, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { NumberField } from "../../ui/number-field";
import { Button } from "../../ui/press";
import { Busy } from "../../ui/state";
import { Body, Heading, Small } from "../../ui/words";
import { ask } from "../../device/workers";

/** A slice is read at no more than this on a side: pores of a millimetre are some pixels still. */
const SIDE_PX = 900;

/** Pixels of a picture, at the size at which it is read. */
async function pixelsOf(source: Blob): Promise<ImageData> {
  const bitmap = await createImageBitmap(source);
  const scale = Math.min(1, SIDE_PX / Math.max(bitmap.width, bitmap.height));
  const [width, height] = [Math.max(1, Math.round(bitmap.width * scale)), Math.max(1, Math.round(bitmap.height * scale))];
  const canvas = document.createElement("canvas");
  canvas.width = width;
  canvas.height = height;
  const context = canvas.getContext("2d");
  if (!context) throw new Error("This browser draws no pictures.");
  context.drawImage(bitmap, 0, 0, width, height);
  return context.getImageData(0, 0, width, height);
}

const asked = ({ width, height, data }: ImageData, mmAcross: number | undefined): Promise<CutFaceResult> =>
  ask("slice", { width, height, data }, mmAcross);

const again = ({ kinds, width, height }: CutFace, mmAcross: number | undefined): Promise<CutFace> =>
  ask("measure-slice", kinds, width, height, mmAcross);

/** The cut face of a photograph, read in a worker: what is pore is laid over it and can be corrected by hand. */
export function SlicePicture({ photos }: { photos: readonly string[] }) {
  const input = useRef<HTMLInputElement>(null);
  const [across, setAcross] = useState<number | undefined>(undefined);
  const [picture, setPicture] = useState<ImageData | null>(null);
  const [result, setResult] = useState<CutFaceResult | null>(null);
  const read = useMutation({
    mutationFn: async (source: Blob) => {
      const pixels = await pixelsOf(source);
      return { pixels, result: await asked(pixels, across) };
    },
    onSuccess: (done) => {
      setPicture(done.pixels);
      setResult(done.result);
    },
  });
  const correct = useMutation({ mutationFn: (face: CutFace) => again(face, across), onSuccess: (face) => setResult({ ok: true, face }) });
  return (
    <View style={styles.slice}>
      <Heading>The cut face</Heading>
      <Small tone="faint">A slice on something dark, the light from the side, all of it in the picture.</Small>
      <View style={styles.tools}>
        <NumberField label="Width of the slice" value={across} unit="mm" least={10} most={600} optional onChange={setAcross} style={styles.field} />
        <Button onPress={() => input.current?.click()}>Read a picture of a slice</Button>
        {photos.map((hash, k) => (
          <Button key={hash} kind="quiet" onPress={() => void fetch(`/api/photos/${hash}`).then((answer) => answer.blob()).then((blob) => read.mutate(blob))}>
            {`Read photograph ${k + 1}`}
          </Button>
        ))}
      </View>
      <input
        ref={input}
        type="file"
        accept="image/jpeg,image/png,image/webp"
        hidden
        aria-label="Picture of a slice"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = "";
          if (file) read.mutate(file);
        }}
      />
      <Busy on={read.isPending || correct.isPending} what="Reading the slice" />
      {read.error ? <Body tone="stop">{`The picture was not read: ${read.error.message}`}</Body> : null}
      {result && !result.ok ? <Body tone="caution">{result.why}</Body> : null}
      {result?.ok && picture ? (
        <>
          <Overlay picture={picture} face={result.face} onPaint={(face) => correct.mutate(face)} />
          <Told face={result.face} />
        </>
      ) : null}
    </View>
  );
} // prettier-ignore

function Told({ face }: { face: CutFace }) {
  const { porosity, pores, poresPerCm2, poreDiameter, unit, heights, band } = face;
  return (
    <View>
      <Body>{`${Math.round(100 * porosity)} % pores, ${pores} of them${poresPerCm2 === null ? "" : ` (${poresPerCm2.toFixed(1)} on each cm²)`}, ${poreDiameter.toFixed(1)} ${unit} across in the mean by area; ${evennessWord(face)}.`}</Body>
      <Body>{`Heights across: ${heights.map((height) => height.toFixed(0)).join(", ")} ${unit}.`}</Body>
      <Body>{band ? `A dense band along the base: ${Math.round(100 * band.share)} % of the height.` : "No dense band along the base."}</Body>
    </View>
  );
} // prettier-ignore

/** The picture with its pores marked; a press takes a pore away, or makes one where there is none. */
function Overlay({ picture, face, onPaint }: { picture: ImageData; face: CutFace; onPaint: (face: CutFace) => void }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const colours = useColours();
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context) return;
    const shown = new ImageData(new Uint8ClampedArray(picture.data), picture.width, picture.height);
    const [red, green, blue] = [1, 3, 5].map((k) => Number.parseInt(colours.heat.slice(k, k + 2), 16));
    for (let k = 0; k < face.kinds.length; k++) {
      if (face.kinds[k] !== 2) continue;
      shown.data[4 * k] = red ?? 0;
      shown.data[4 * k + 1] = green ?? 0;
      shown.data[4 * k + 2] = blue ?? 0;
    }
    context.putImageData(shown, 0, 0);
  }, [picture, face, colours]);
  const paint = (x: number, y: number): void => onPaint({ ...face, kinds: correctedAt(face.kinds, face.width, face.height, x, y) });
  return (
    <>
      <canvas
        ref={canvas}
        width={picture.width}
        height={picture.height}
        role="img"
        aria-label={`The slice with its pores marked: ${Math.round(100 * face.porosity)} % of it.`}
        style={{ maxWidth: "100%", width: Math.min(picture.width, 360), height: "auto" }}
        onClick={(event) => {
          const box = event.currentTarget.getBoundingClientRect();
          const scale = picture.width / box.width;
          paint(Math.round((event.clientX - box.left) * scale), Math.round((event.clientY - box.top) * scale));
        }}
      />
      <Small tone="faint">Press a mark to take it away, or the crumb to make one.</Small>
    </>
  );
}

const styles = StyleSheet.create({
  slice: { gap: space.s },
  tools: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "flex-end" },
  field: { width: 150 },
});
