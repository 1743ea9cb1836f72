import { useEffect, useRef, useState } from "react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { orProblem, Problem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { faces, loadFace } from "../../kit/faces";
import { SelectBox, TextBox } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useEdit } from "../saving/useEdit";
import { SavedForm } from "../saving/SavedForm";

const names: Record<string, string> = { accent: "Accent", backdrop: "Backdrop", typeface: "Typeface" };
const isColour = (text: string) => /^#[0-9a-f]{6}$/i.test(text);

/** Logo, colours and typeface of public pages. */
export function LookSettings({ settings }: { settings: Schemas["SettingsView"] }) {
  const edit = useEdit(settings.look, async (body) => (await orProblem(api.PUT("/api/settings/look", { body }))).look);
  const readable = useQuery({
    ...ask(["readable", edit.now.accent], () =>
      api.GET("/api/settings/look/readable", { params: { query: { accent: edit.now.accent } } }),
    ),
    enabled: isColour(edit.now.accent),
    staleTime: Infinity,
  });
  const offer = readable.data && readable.data.accent !== edit.now.accent ? readable.data.accent : null;
  return (
    <div className="grid items-start gap-6 xl:grid-cols-2">
      <div className="grid gap-6">
        <SavedForm edit={edit} nameOf={(place) => names[place] ?? place}>
          <div className="grid gap-4">
            <ColourBox
              label="Accent"
              help="For buttons and marks, with white text on it."
              value={edit.now.accent}
              error={offer ? undefined : edit.findings.get("accent")}
              onChange={(accent) => edit.change({ accent })}
            />
            {offer && (
              <p className="flex flex-wrap items-center gap-2" role="status">
                <span className="text-brick">White text on this colour cannot be read well.</span>
                <Button onClick={() => edit.change({ accent: offer })}>
                  <span className="size-4 rounded-full" style={{ background: offer }} /> Take the nearest that works,{" "}
                  {offer}
                </Button>
              </p>
            )}
            <ColourBox
              label="Backdrop"
              help="The colour around the page, without text on it."
              value={edit.now.backdrop}
              error={edit.findings.get("backdrop")}
              onChange={(backdrop) => edit.change({ backdrop })}
            />
            <SelectBox
              label="Typeface"
              value={edit.now.typeface}
              onChange={(e) => edit.change({ typeface: e.target.value as Schemas["Typeface"] })}
            >
              {Object.entries(faces).map(([key, { name }]) => (
                <option key={key} value={key}>
                  {name}
                </option>
              ))}
            </SelectBox>
          </div>
        </SavedForm>
        <Logo address={settings.logo} />
      </div>
      <Preview look={edit.now} name={settings.business.name} logo={settings.logo} />
    </div>
  );
}

interface ColourProps {
  label: string;
  help: string;
  value: string;
  error: string | undefined;
  onChange: (colour: string) => void;
}

function ColourBox({ label, help, value, error, onChange }: ColourProps) {
  return (
    <div className="flex items-end gap-2">
      <div className="flex-1">
        <TextBox label={label} help={help} value={value} error={error} onChange={(e) => onChange(e.target.value)} />
      </div>
      <input
        type="color"
        aria-label={`${label}, from a palette`}
        value={isColour(value) ? value : "#000000"}
        onChange={(e) => onChange(e.target.value)}
        className="h-9 w-12 rounded-soft border border-edge bg-card p-1"
      />
    </div>
  );
}

function Logo({ address }: { address: string | null }) {
  const queries = useQueryClient();
  const picker = useRef<HTMLInputElement>(null);
  const keep = (next: Schemas["SettingsView"]) => queries.setQueryData(["settings"], next);
  const send = useMutation({
    mutationFn: async (file: File) => {
      if (file.size > 1024 * 1024)
        throw new Problem(413, "A logo can be up to one megabyte. Please make the picture smaller.");
      return orProblem(
        // The bytes are the body; what they are the program finds out by itself.
        api.PUT("/api/settings/logo", {
          body: file as unknown as string,
          bodySerializer: () => file,
          headers: { "Content-Type": file.type || "application/octet-stream" },
        }),
      );
    },
    onSuccess: keep,
  });
  const remove = useMutation({ mutationFn: () => orProblem(api.DELETE("/api/settings/logo")), onSuccess: keep });
  return (
    <div className="rounded-soft bg-card p-6 shadow-soft">
      <h2 className="text-section">Logo</h2>
      <p className="mb-3 text-slate">A PNG, JPEG or WebP of up to one megabyte. It stands at the top of your forms.</p>
      {address && <img src={address} alt="Your logo" className="mb-3 max-h-20 max-w-60 border border-line p-2" />}
      <input
        ref={picker}
        type="file"
        accept="image/png,image/jpeg,image/webp"
        aria-label="Choose a logo"
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) send.mutate(file);
          e.target.value = "";
        }}
      />
      <div className="flex gap-2">
        <Button disabled={send.isPending} onClick={() => picker.current?.click()}>
          {address ? "Choose another" : "Choose a picture"}
        </Button>
        {address && (
          <Button weight="quiet" disabled={remove.isPending} onClick={() => remove.mutate()}>
            Remove it
          </Button>
        )}
      </div>
      <Failure error={send.error ?? remove.error} />
    </div>
  );
}

/** How a form looks with what is chosen, before it is kept. */
function Preview({ look, name, logo }: { look: Schemas["BrandLook"]; name: string; logo: string | null }) {
  const [face, setFace] = useState("");
  const form = useFirstForm();
  useEffect(() => {
    let wanted = true;
    void loadFace(look.typeface).then((family) => wanted && setFace(family));
    return () => void (wanted = false);
  }, [look.typeface]);
  return (
    <div
      aria-hidden
      className="rounded-soft border border-edge p-6"
      style={{ background: isColour(look.backdrop) ? look.backdrop : undefined, fontFamily: face }}
    >
      <div className="rounded-soft bg-card p-6 text-section shadow-soft">
        {logo && <img src={logo} alt="" className="mb-2 max-h-14 max-w-48" />}
        <p className="mb-1 text-slate">{name}</p>
        <p className="mb-3 text-title font-semibold">{form?.title ?? "The title of your form"}</p>
        <p className="mb-1 font-semibold">{form?.wording ?? "Your first question"}</p>
        <p className="mb-4 rounded-soft border border-edge px-2.5 py-1.5">Their answer</p>
        <span
          className="inline-block rounded-soft px-5 py-2.5 font-semibold text-card"
          style={{ background: isColour(look.accent) ? look.accent : undefined }}
        >
          Send
        </span>
      </div>
    </div>
  );
}

/** The business's own form, so that the preview speaks of its work. */
function useFirstForm(): { title: string; wording: string | undefined } | undefined {
  const forms = useQuery(ask(["forms"], () => api.GET("/api/forms")));
  const id = forms.data?.[0]?.id;
  const copy = useQuery({
    ...ask(["form-content", id], () => api.GET("/api/forms/{id}/content", { params: { path: { id: id! } } })),
    enabled: id !== undefined,
  });
  const content = copy.data?.content;
  const first = content?.pages.flatMap((page) => page.items).find((item) => item.item === "question");
  return content && { title: content.title, wording: first?.wording };
}
