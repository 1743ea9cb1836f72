import { useEffect, useRef, useState, type DragEvent } from "react";
import { sentenceOf } from "../../api/problem";
import { takeBack, upload } from "../client";
import { useQuestionContext } from "../questionContext";
import { answerOf, quietButton, type ControlProps } from "./control";

interface Coming {
  name: string;
  share: number;
}

/** Files from the lead's own machine; each goes out as soon as it is chosen, and can be taken back. */
export default function Files({ id, place, control, answer, onChange, described }: ControlProps<"files">) {
  const desk = useQuestionContext();
  const files = answerOf(answer, "files")?.files ?? [];
  // Several may come through at once; each joins what is there by then.
  const latest = useRef(files);
  useEffect(() => {
    latest.current = files;
  });
  const [coming, setComing] = useState<Coming[]>([]);
  const [refusals, setRefusals] = useState<string[]>([]);
  const chooser = useRef<HTMLInputElement>(null);

  const set = (next: typeof files) => {
    latest.current = next;
    onChange(next.length === 0 ? undefined : { kind: "files", files: next });
  };
  const send = async (chosen: File[]) => {
    setRefusals([]);
    for (const file of chosen) {
      if (file.size > control.maxBytes) {
        setRefusals((before) => [
          ...before,
          `“${file.name}” is larger than ${control.largest}. Please send a smaller copy.`,
        ]);
        continue;
      }
      setComing((before) => [...before, { name: file.name, share: 0 }]);
      try {
        const stored = await upload(desk, place, file, (share) =>
          setComing((before) => before.map((one) => (one.name === file.name ? { ...one, share } : one))),
        );
        set([...latest.current, stored]);
      } catch (error) {
        setRefusals((before) => [...before, sentenceOf(error)]);
      } finally {
        setComing((before) => before.filter((one) => one.name !== file.name));
      }
    }
  };
  const remove = (file: (typeof files)[number]) => {
    set(latest.current.filter((one) => one.id !== file.id));
    chooser.current?.focus();
    takeBack(desk, file.id).catch(() => {}); // It is no part of the answer any more, and goes with the unsent ones.
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    void send([...event.dataTransfer.files]);
  };

  return (
    <div
      onDragOver={(event) => event.preventDefault()}
      onDrop={drop}
      className="rounded-soft border border-dashed border-edge p-3"
    >
      {files.length > 0 && (
        <ul className="mb-2 grid gap-1.5">
          {files.map((file) => (
            <li key={file.id} className="flex flex-wrap items-center justify-between gap-2">
              <span className="min-w-0 break-words">{file.name}</span>
              <button
                type="button"
                className={quietButton}
                aria-label={`Remove ${file.name}`}
                onClick={() => remove(file)}
              >
                Remove
              </button>
            </li>
          ))}
        </ul>
      )}
      {coming.map((one) => (
        <p key={one.name} className="mb-2">
          <span className="block break-words">{one.name}</span>
          <progress className="w-full" value={one.share} max={1} aria-label={`Sending ${one.name}`} />
        </p>
      ))}
      <div aria-live="polite">
        {refusals.map((sentence) => (
          <p key={sentence} className="mb-2 border-l-4 border-brick pl-2 font-semibold text-brick">
            {sentence}
          </p>
        ))}
      </div>
      {files.length + coming.length < control.atMost && (
        <label
          className={`${quietButton} relative cursor-pointer has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-dusk`}
        >
          <input
            ref={chooser}
            id={`${id}-chooser`}
            type="file"
            className="absolute inset-0 cursor-pointer opacity-0"
            multiple={control.atMost > 1}
            accept={control.endings.join(",")}
            onChange={({ target }) => {
              void send([...(target.files ?? [])]);
              target.value = "";
            }}
            {...described}
          />
          {control.atMost > 1 ? "Choose files" : "Choose a file"}
        </label>
      )}
      <p className="mt-1.5 text-slate">
        {control.atMost > 1 ? `Up to ${control.atMost} files, each` : "One file of"} up to {control.largest}.
      </p>
    </div>
  );
}
