import { useQuery } from "@tanstack/react-query";
import { ask } from "../../../api/ask";
import { type Schemas } from "../../../api/problem";
import { Button } from "../../../kit/Button";
import { boxLook, CheckBox, GrowingText, Labelled, SelectBox, TextBox } from "../../../kit/fields";
import { api } from "../../../api/client";
import { useWorkbench } from "../workbenchContext";
import { AwayNote } from "../AwayNote";
import { AnswerRules } from "./AnswerRules";
import { FilePicker } from "./FilePicker";
import { elsewhere, Members } from "./Members";
import { Part, Sheet } from "./Sheet";

/** The form itself: what it says before anything is asked, and what must hold between answers. */
export function FormDesk() {
  const { id, form, edit } = useWorkbench();
  const change = (part: Partial<typeof form>, member: string) => edit((now) => ({ ...now, ...part }), `form.${member}`);
  return (
    <Sheet title="The form" place="title">
      <Members
        of="FormContent"
        fields={{
          title: (
            <TextBox
              label="Title"
              className="font-head text-lead"
              value={form.title}
              onChange={(e) => change({ title: e.target.value }, "title")}
            />
          ),
          intro: (
            <Labelled label="Intro" help="A few lines under the title.">
              <GrowingText
                className={boxLook}
                value={form.intro}
                onChange={(e) => change({ intro: e.target.value }, "intro")}
              />
            </Labelled>
          ),
          cover: (
            <Part title="A cover before the first page">
              <CoverFields cover={form.cover ?? null} onChange={(cover) => change({ cover }, "cover")} />
            </Part>
          ),
          notForUs: (
            <Part title="What you do not do">
              <NotForUsFields note={form.notForUs ?? null} onChange={(notForUs) => change({ notForUs }, "notForUs")} />
            </Part>
          ),
          review: (
            <CheckBox
              label="All answers are shown once more before they are sent"
              checked={form.review ?? false}
              onChange={(review) => change({ review }, "review")}
            />
          ),
          rules: (
            <Part title="Checks between answers">
              <AnswerRules rules={form.rules ?? []} onChange={(rules) => change({ rules }, "rules")} />
            </Part>
          ),
          look: elsewhere,
          pages: elsewhere,
          sendOffs: elsewhere,
          defaultSendOff: elsewhere,
        }}
      />
      <Part title="While its light is off">
        <AwayNote id={id} />
      </Part>
    </Sheet>
  );
}

function CoverFields(props: { cover: Schemas["Cover"] | null; onChange: (cover: Schemas["Cover"] | null) => void }) {
  const { cover, onChange } = props;
  if (!cover) return <Button onClick={() => onChange({ text: "", startLabel: "Start" })}>Begin with a cover</Button>;
  const set = (part: Partial<Schemas["Cover"]>) => onChange({ ...cover, ...part });
  return (
    <>
      <Members
        of="Cover"
        fields={{
          text: (
            <Labelled label="What it says">
              <GrowingText className={boxLook} value={cover.text} onChange={(e) => set({ text: e.target.value })} />
            </Labelled>
          ),
          startLabel: (
            <TextBox
              label="What the button says"
              value={cover.startLabel ?? "Start"}
              onChange={(e) => set({ startLabel: e.target.value })}
            />
          ),
          picture: (
            <FilePicker
              label="A picture"
              groups={["picture"]}
              value={cover.picture ?? null}
              onChange={(picture) => set({ picture })}
            />
          ),
          pictureAlt: cover.picture ? (
            <TextBox
              label="What it shows"
              help="For people who cannot see it. Leave it empty when it only decorates."
              value={cover.pictureAlt ?? ""}
              onChange={(e) => set({ pictureAlt: e.target.value })}
            />
          ) : (
            <></>
          ),
          video: (
            <FilePicker
              label="A video"
              groups={["film"]}
              value={cover.video ?? null}
              onChange={(video) => set({ video })}
            />
          ),
          showsOwner: (
            <CheckBox
              label="Your photo and contact lines stand there"
              checked={cover.showsOwner ?? false}
              onChange={(showsOwner) => set({ showsOwner })}
            />
          ),
        }}
      />
      <Button weight="quiet" className="mt-1 -ml-3" onClick={() => onChange(null)}>
        Remove the cover
      </Button>
    </>
  );
}

function NotForUsFields(props: {
  note: Schemas["NotForUs"] | null;
  onChange: (note: Schemas["NotForUs"] | null) => void;
}) {
  const { note, onChange } = props;
  const { id } = useWorkbench();
  const forms = useQuery(ask(["forms"], () => api.GET("/api/forms")));
  if (!note) return <Button onClick={() => onChange({ text: "" })}>Say what you do not do</Button>;
  const set = (part: Partial<Schemas["NotForUs"]>) => onChange({ ...note, ...part });
  return (
    <>
      <Members
        of="NotForUs"
        half={["sisterForm", "sisterLabel"]}
        fields={{
          text: (
            <Labelled label="A sentence or two" help="People read it before they start, and save themselves the work.">
              <GrowingText className={boxLook} value={note.text} onChange={(e) => set({ text: e.target.value })} />
            </Labelled>
          ),
          sisterForm: (
            <SelectBox
              label="The form that fits them better"
              value={note.sisterForm ?? ""}
              onChange={(e) => set({ sisterForm: e.target.value || null })}
            >
              <option value="">none</option>
              {forms.data
                ?.filter((one) => one.id !== id)
                .map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.title}
                  </option>
                ))}
            </SelectBox>
          ),
          sisterLabel: (
            <TextBox
              label="What the link says"
              placeholder="its title"
              value={note.sisterLabel ?? ""}
              onChange={(e) => set({ sisterLabel: e.target.value || null })}
            />
          ),
        }}
      />
      <Button weight="quiet" className="mt-1 -ml-3" onClick={() => onChange(null)}>
        Remove it
      </Button>
    </>
  );
}
