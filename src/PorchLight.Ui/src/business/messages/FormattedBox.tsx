import type { ComponentProps } from "react";
import { MessageEditor } from "./editor/MessageEditor";

type Props = Pick<ComponentProps<typeof MessageEditor>, "label" | "error" | "choices" | "pictures"> & {
  value: string;
  onChange: (value: string) => void;
};

/** Formatted words of one piece, without gaps. */
export const FormattedBox = ({ value, onChange, ...rest }: Props) => (
  <MessageEditor
    stage={rest.choices ? "template" : "draft"}
    parts={[{ kind: "text", key: "text", text: value }]}
    onChange={(parts) => onChange(parts.map((part) => (part.kind === "text" ? part.text : "")).join("\n\n"))}
    {...rest}
  />
);
