import { CornerDownRight, Scale, Split } from "lucide-react";
import type { Schemas } from "../../api/problem";
import { boxLook, GrowingText } from "../../kit/fields";
import { MarginMark } from "../../kit/marks";
import type { Words } from "./useDraft";

interface Props {
  form: Schemas["FormView"];
  words: Words;
  onChange: (words: Words) => void;
}

/** The words of a form, page by page, with the margin that says what each question does. */
export function Wordings({ form, words, onChange }: Props) {
  const problemAt = new Map(form.findings.map((finding) => [finding.place, finding.sentence]));
  let number = 0;
  return (
    <div className="rounded-soft bg-card p-6 shadow-soft">
      <label className="mb-4 block">
        <span className="mb-1 block font-semibold">Title</span>
        <input
          className={`${boxLook} font-head text-lg`}
          value={words.title}
          onChange={(e) => onChange({ ...words, title: e.target.value })}
          aria-invalid={problemAt.has("title") ? true : undefined}
        />
        {problemAt.get("title") && <span className="text-brick">{problemAt.get("title")}</span>}
      </label>
      <label className="mb-2 block">
        <span className="mb-1 block font-semibold">Intro</span>
        <GrowingText
          className={boxLook}
          value={words.intro}
          onChange={(e) => onChange({ ...words, intro: e.target.value })}
        />
      </label>
      {form.pages.map((page, index) => (
        <section key={page.key} className="mt-6">
          <h2 className="mb-2 text-[1.07rem]">
            <span className="font-body font-normal text-slate">Page {index + 1}</span> {page.title}
          </h2>
          <ol className="grid gap-1.5">
            {page.questions.map((question) => (
              <li key={question.key} className="grid grid-cols-[1.6rem_minmax(0,1fr)_3.8rem] items-start gap-2">
                <span className="pt-1.5 text-right text-slate tabular-nums">{++number}</span>
                <div>
                  <GrowingText
                    aria-label={`Wording of question ${number}`}
                    className={boxLook}
                    value={words.wordings[question.key] ?? question.wording}
                    onChange={(e) =>
                      onChange({ ...words, wordings: { ...words.wordings, [question.key]: e.target.value } })
                    }
                    aria-invalid={problemAt.has(question.key) ? true : undefined}
                  />
                  {question.reads && (words.wordings[question.key] ?? question.wording) === question.wording && (
                    <p className="text-[0.9rem] text-slate">Before that is answered it reads: “{question.reads}”</p>
                  )}
                  <p className="text-[0.9rem] text-slate">
                    {question.kind}
                    {!question.required && ", optional"}
                  </p>
                  {problemAt.get(question.key) && <p className="text-brick">{problemAt.get(question.key)}</p>}
                </div>
                <span className="flex gap-1 pt-2 text-dusk">
                  {question.landsIn && (
                    <MarginMark label={question.landsIn}>
                      <CornerDownRight size={18} aria-hidden />
                    </MarginMark>
                  )}
                  {question.signal && (
                    <MarginMark label="Counts towards fit">
                      <Scale size={18} aria-hidden />
                    </MarginMark>
                  )}
                  {question.conditional && (
                    <MarginMark label="Asked only when a condition holds">
                      <Split size={18} aria-hidden />
                    </MarginMark>
                  )}
                </span>
              </li>
            ))}
          </ol>
        </section>
      ))}
      <p className="mt-6 text-slate">It ends with one of: {form.sendOffs.map((title) => `“${title}”`).join(", ")}.</p>
    </div>
  );
}
