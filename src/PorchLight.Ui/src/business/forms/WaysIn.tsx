import { useState } from "react";
import type { Schemas } from "../../api/problem";
import { CopyBox } from "../../kit/CopyBox";
import { SelectBox, TextBox } from "../../kit/fields";

/** Every way to bring people to a form from elsewhere. */
export function WaysIn({ form }: { form: Schemas["FormView"] }) {
  const { sharing } = form;
  return (
    <div className="grid gap-6">
      <div className="rounded-soft bg-card p-6 shadow-soft">
        <h2 className="mb-2 text-section">On your own site</h2>
        <CopyBox
          label="Inline"
          help="The form appears where you paste this, as tall as it needs to be."
          text={sharing.inline}
          rows={3}
        />
        <CopyBox
          label="Floating button"
          help="A button in the corner of the page opens the form over it."
          text={sharing.button}
          rows={6}
        />
        <CopyBox
          label="Text link"
          help="A link in your text opens the form over the page; without scripts it leads to the form."
          text={sharing.textLink}
          rows={6}
        />
        {sharing.plain ? (
          <CopyBox
            label="Plain HTML"
            help="For a developer's own markup. It posts to the same rules; its spam protection is weaker: only the hidden field, no shortest time and no check in the browser."
            text={sharing.plain}
            rows={10}
          />
        ) : (
          <p className="text-slate">
            Plain HTML for a developer&rsquo;s own markup appears here once the form&rsquo;s settings allow it and it is
            published.
          </p>
        )}
      </div>
      <LinkMaker link={sharing.link} parameters={sharing.parameters} />
    </div>
  );
}

const usualTags = ["utm_source", "utm_medium", "utm_campaign"];

/** A link that says where people came from, and answers what is known. */
function LinkMaker({ link, parameters }: { link: string; parameters: Schemas["LinkParameter"][] }) {
  const [values, setValues] = useState<Record<string, string>>({});
  const query = new URLSearchParams(Object.entries(values).filter(([, value]) => value.trim() !== "")).toString();
  const set = (name: string, value: string) => setValues((before) => ({ ...before, [name]: value }));
  return (
    <div className="rounded-soft bg-card p-6 shadow-soft">
      <h2 className="mb-2 text-section">A link that fills in answers</h2>
      {parameters.length === 0 ? (
        <p className="text-slate">
          No question of this form takes anything from its link. A hidden question named like{" "}
          <code>{usualTags[0]}</code> keeps a campaign&rsquo;s tag; a question can be filled in from the link, too.
        </p>
      ) : (
        <>
          <p className="mb-3 text-slate">
            Whoever opens this link finds these answers filled in already. Hidden questions are stored and not shown.
          </p>
          <div className="mb-4 grid gap-3 sm:grid-cols-2">
            {parameters.map(({ name, fills, options }) =>
              options.length > 0 ? (
                <SelectBox
                  key={name}
                  label={fills ?? name}
                  value={values[name] ?? ""}
                  onChange={(e) => set(name, e.target.value)}
                >
                  <option value="">leave it open</option>
                  {options.map((option) => (
                    <option key={option}>{option}</option>
                  ))}
                </SelectBox>
              ) : (
                <TextBox
                  key={name}
                  label={fills ?? name}
                  help={fills ? undefined : "Stored with the answers, and never shown to them."}
                  value={values[name] ?? ""}
                  onChange={(e) => set(name, e.target.value)}
                />
              ),
            )}
          </div>
          <CopyBox
            label="Tagged link"
            help="Give each place where you put it tags of its own."
            text={query ? `${link}?${query}` : link}
            rows={3}
          />
        </>
      )}
    </div>
  );
}
