import { useId, useRef } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../../api/ask";
import { type Schemas } from "../../../api/problem";
import { Button } from "../../../kit/Button";
import { controlLook } from "../../../kit/fields";
import { Failure } from "../../../kit/states";
import { api } from "../../../api/client";
import { uploadFile } from "../../../api/uploadFile";
import { useSendKey } from "../../../api/useSendKey";

interface Props {
  label: string;
  value: string | null;
  /** Which sorts of files fit; empty for all. */
  groups: Schemas["FileGroup"][];
  onChange: (file: string | null) => void;
  /** Whether there may be none. */
  optional?: boolean;
}

/** One of the business's own files, or a new one. */
export function FilePicker({ label, value, groups, onChange, optional = true }: Props) {
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  const sendKey = useSendKey();
  const files = useQuery(ask(["files"], () => api.GET("/api/files")));
  const fitting = files.data?.filter((file) => groups.length === 0 || groups.includes(file.group)) ?? [];
  const upload = useMutation({
    mutationFn: (file: File) => uploadFile(file, sendKey.for([file.name, file.size, file.lastModified])),
    onSuccess: (file) => {
      onChange(file.id);
    },
  });
  const chosen = files.data?.find((file) => file.id === value);
  return (
    <div>
      <label htmlFor={id} className="font-semibold">
        {label}
      </label>
      <div className="mt-1 flex flex-wrap items-center gap-2">
        {chosen?.group === "picture" && (
          <img src={`/public/files/${chosen.id}`} alt="" className="size-10 rounded-soft object-cover" />
        )}
        <select
          id={id}
          className={`${controlLook} w-auto max-w-60 flex-1`}
          value={value ?? ""}
          onChange={(e) => onChange(e.target.value || null)}
        >
          {(optional || !value) && <option value="">{optional ? "none" : "choose …"}</option>}
          {value && !chosen && <option value={value}>a deleted file</option>}
          {fitting.map((file) => (
            <option key={file.id} value={file.id}>
              {file.name}
            </option>
          ))}
        </select>
        <Button onClick={() => input.current?.click()} disabled={upload.isPending}>
          {upload.isPending ? "One moment …" : "Upload one"}
        </Button>
        <input
          ref={input}
          type="file"
          hidden
          aria-label={`Upload: ${label}`}
          accept={accepts(groups)}
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = "";
            if (file) upload.mutate(file);
          }}
        />
      </div>
      <Failure error={upload.error ?? files.error} />
    </div>
  );
}

const accepts = (groups: Schemas["FileGroup"][]) =>
  groups.length === 1 && groups[0] === "picture"
    ? "image/*"
    : groups.length === 1 && groups[0] === "film"
      ? "video/*"
      : undefined;
