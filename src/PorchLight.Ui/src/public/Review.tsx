import type { ReviewPage } from "./views";

/** All answers once more, before they are sent. */
export function Review({ pages, onChange }: { pages: ReviewPage[]; onChange: (page: string) => void }) {
  return pages.map((page) => (
    <section key={page.key} className="mb-6">
      <div className="flex flex-wrap items-baseline justify-between gap-2 border-b border-line">
        <h3 className="text-lead">{page.title}</h3>
        <button
          type="button"
          className="min-h-11 underline"
          aria-label={`Change the answers of “${page.title}”`}
          onClick={() => onChange(page.key)}
        >
          Change
        </button>
      </div>
      <dl className="mt-2 grid gap-2">
        {page.lines.map((line) => (
          <div key={line.key} className="grid gap-x-4 sm:grid-cols-[2fr_3fr]">
            <dt className="text-slate">{line.wording}</dt>
            <dd className="whitespace-pre-line break-words">
              {line.words ?? <span className="text-slate">left blank</span>}
            </dd>
          </div>
        ))}
      </dl>
    </section>
  ));
}
