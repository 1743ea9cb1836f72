import type { Schemas } from "../../../api/problem";
import { Button } from "../../../kit/Button";
import { controlLook, Labelled, SelectBox, TextBox } from "../../../kit/fields";
import { faces } from "../../../kit/faces";
import { useWorkbench } from "../workbenchContext";
import { FilePicker } from "./FilePicker";
import { Members } from "./Members";
import { Sheet } from "./Sheet";

type Look = Schemas["FormLook"];

const isColour = (text: string) => /^#[0-9a-f]{6}$/i.test(text);
const ratio = new Intl.NumberFormat("en", { maximumFractionDigits: 1 });

/** How the form looks where it is unlike the business's others. */
export function LookDesk() {
  const { form, facts, edit } = useWorkbench();
  const look: Look = form.look ?? {};
  const change = (part: Partial<Look>) => edit((now) => ({ ...now, look: { ...now.look, ...part } }), "look");
  const { accent } = facts;
  return (
    <Sheet title="How the form looks" place="look">
      <p className="mb-4 text-slate">
        Anything you do not change follows your business’s look. People see it once you publish the form.
      </p>
      <Members
        of="FormLook"
        half={["paper", "width", "corners", "density"]}
        fields={{
          paper: (
            <SelectBox
              label="Paper"
              value={look.paper ?? "light"}
              onChange={(e) => change({ paper: e.target.value as Schemas["Paper"] })}
            >
              <option value="light">light</option>
              <option value="dark">dark</option>
            </SelectBox>
          ),
          width: (
            <SelectBox
              label="Width"
              value={look.width ?? "usual"}
              onChange={(e) => change({ width: e.target.value as Schemas["FormWidth"] })}
            >
              <option value="narrow">narrow</option>
              <option value="usual">usual</option>
              <option value="wide">wide</option>
            </SelectBox>
          ),
          accent: (
            <>
              <Colour
                label="Accent"
                help="Buttons, links and marks."
                value={look.accent ?? null}
                shown={accent.accent}
                onChange={(next) => change({ accent: next })}
              />
              <p className="mt-1 flex flex-wrap items-center gap-2" role="status">
                <span>
                  {accent.accent} on this paper: {ratio.format(accent.ratio)} to 1
                  {accent.nearest === null ? ", which can be read." : "; text needs 4.5."}
                </span>
                {accent.nearest !== null && (
                  <Button onClick={() => change({ accent: accent.nearest })}>
                    <span
                      aria-hidden
                      className="inline-block size-4 rounded-soft border border-edge"
                      style={{ background: accent.nearest }}
                    />
                    Take {accent.nearest}, the nearest that can be read
                  </Button>
                )}
              </p>
            </>
          ),
          backdrop: (
            <Colour
              label="Around the page"
              help="No text on it."
              value={look.backdrop ?? null}
              onChange={(next) => change({ backdrop: next })}
            />
          ),
          typeface: (
            <SelectBox
              label="Typeface"
              value={look.typeface ?? ""}
              onChange={(e) => change({ typeface: (e.target.value || null) as Look["typeface"] })}
            >
              <option value="">as your business has it</option>
              {Object.entries(faces).map(([key, { name }]) => (
                <option key={key} value={key}>
                  {name}
                </option>
              ))}
            </SelectBox>
          ),
          corners: (
            <SelectBox
              label="Corners"
              value={look.corners ?? "soft"}
              onChange={(e) => change({ corners: e.target.value as Schemas["Corners"] })}
            >
              <option value="square">square</option>
              <option value="soft">a little round</option>
              <option value="round">round</option>
            </SelectBox>
          ),
          density: (
            <SelectBox
              label="Spacing"
              value={look.density ?? "roomy"}
              onChange={(e) => change({ density: e.target.value as Schemas["Density"] })}
            >
              <option value="roomy">with room around them</option>
              <option value="close">close together</option>
            </SelectBox>
          ),
          logo: (
            <FilePicker
              label="A logo of its own"
              groups={["picture"]}
              value={look.logo ?? null}
              onChange={(logo) => change({ logo })}
            />
          ),
          buttonWord: (
            <TextBox
              label="What the button says that sends the answers"
              placeholder="Send"
              value={look.buttonWord ?? ""}
              onChange={(e) => change({ buttonWord: e.target.value || null })}
            />
          ),
        }}
      />
    </Sheet>
  );
}

interface ColourProps {
  label: string;
  help: string;
  value: string | null;
  /** The colour that is shown while there is none of its own. */
  shown?: string;
  onChange: (colour: string | null) => void;
}

function Colour({ label, help, value, shown = "#f2f3f8", onChange }: ColourProps) {
  return (
    <Labelled label={label} help={help}>
      <span className="flex gap-2">
        <input
          className={`${controlLook} min-w-0 flex-1`}
          placeholder="as your business has it"
          value={value ?? ""}
          onChange={(e) => onChange(e.target.value.trim() || null)}
        />
        <input
          type="color"
          aria-label={`${label}, from a palette`}
          className="h-9 w-12 shrink-0 rounded-soft border border-edge bg-card p-1"
          value={value && isColour(value) ? value : shown}
          onChange={(e) => onChange(e.target.value)}
        />
      </span>
    </Labelled>
  );
}
