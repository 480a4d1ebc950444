import { useRef } from "react";
import type { StyleProp, ViewStyle } from "react-native";
import { Button } from "./press";

interface FileButtonProps {
  children: string;
  /** What the browser offers, such as ".csv,text/html". */
  accept: string;
  onFile: (file: File) => void;
  kind?: "main" | "plain" | "quiet";
  disabled?: boolean;
  style?: StyleProp<ViewStyle>;
  /** From the camera, where the device has one. */
  capture?: boolean;
}

/** A button that asks for a file. */
export function FileButton({
  children,
  accept,
  onFile,
  kind = "plain",
  disabled = false,
  style,
  capture = false,
}: FileButtonProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        hidden
        {...(capture ? { capture: "environment" as const } : {})}
        aria-label={children}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = "";
          if (file) onFile(file);
        }}
      />
      <Button kind={kind} disabled={disabled} onPress={() => input.current?.click()} style={style}>
        {children}
      </Button>
    </>
  );
}
