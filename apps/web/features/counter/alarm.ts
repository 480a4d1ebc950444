import { spokenWords } from "@uprise/core/page-live";
import { useEffect, useRef, useState } from "react";
import { readDevice, writeDevice } from "../../device/local";

const NAME = "counter-alarm";
export const alarmWays = ["silent", "sound", "voice"] as const;
export type AlarmWay = (typeof alarmWays)[number];

/** How this device calls: as it was set last. */
export function useAlarmWay(): [AlarmWay, (way: AlarmWay) => void] {
  const [way, setWay] = useState<AlarmWay>(() => alarmWays.find((one) => one === readDevice(NAME)) ?? "silent");
  return [
    way,
    (next) => {
      setWay(next);
      writeDevice(NAME, next);
      if (next !== "silent") ring("");
    },
  ];
}

/** Three short tones. */
function tones(): void {
  const Audio = globalThis.AudioContext as typeof AudioContext | undefined;
  if (!Audio) return;
  const audio = new Audio();
  [0, 0.25, 0.5].forEach((at) => {
    const tone = audio.createOscillator();
    const level = audio.createGain();
    tone.frequency.value = 880;
    level.gain.value = 0.25;
    tone.connect(level).connect(audio.destination);
    tone.start(audio.currentTime + at);
    tone.stop(audio.currentTime + at + 0.15);
  });
  setTimeout(() => void audio.close().catch(() => undefined), 1500);
}

function ring(words: string): void {
  try {
    tones();
    if (words !== "") globalThis.speechSynthesis?.speak(new SpeechSynthesisUtterance(spokenWords(words)));
  } catch {
    // A browser that must not sound stays silent; what is due stands on the screen.
  }
}

/** Calls once for each thing that comes due while the page is open. */
export function useAlarm(way: AlarmWay, due: readonly { id: string; words: string }[]): void {
  const told = useRef<Set<string> | null>(null);
  useEffect(() => {
    // What was due before the page was opened was told then.
    if (told.current === null) {
      told.current = new Set(due.map(({ id }) => id));
      return;
    }
    for (const { id, words } of due) {
      if (told.current.has(id)) continue;
      told.current.add(id);
      if (way !== "silent") ring(way === "voice" ? words : "");
    }
  }, [way, due]);
}
