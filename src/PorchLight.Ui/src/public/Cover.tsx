import type { PublicForm } from "./client";
import { OwnVideo } from "./PageItem";

/** What welcomes people before the first page. */
export function Cover({ form, onStart }: { form: PublicForm; onStart: () => void }) {
  const cover = form.cover!;
  return (
    <>
      {cover.picture && (
        <img src={cover.picture} alt={cover.pictureAlt} className="mb-5 max-h-72 w-full rounded-soft object-cover" />
      )}
      <p className="mb-1 text-slate">{form.business}</p>
      <h1 className="mb-3 text-2xl">{form.title}</h1>
      {cover.paragraphs.map((paragraph) => (
        <p key={paragraph} className="mb-3 whitespace-pre-line">
          {paragraph}
        </p>
      ))}
      {cover.video && <OwnVideo address={cover.video} title={form.title} />}
      <NotForUs form={form} />
      {cover.owner && (
        <p className="my-5 border-l-4 border-[var(--brand)] pl-3">
          <strong>{cover.owner.name}</strong>
          <br />
          <a href={`mailto:${cover.owner.mail}`} className="underline">
            {cover.owner.mail}
          </a>
        </p>
      )}
      <button
        type="button"
        onClick={onStart}
        className="mt-2 min-h-11 rounded-soft bg-[var(--brand)] px-5 py-2.5 font-semibold text-card"
      >
        {cover.startLabel}
      </button>
    </>
  );
}

/** What the business does not do, and where they may find it. */
export function NotForUs({ form: { notForUs } }: { form: PublicForm }) {
  return (
    notForUs && (
      <p className="mb-5 text-slate">
        {notForUs.text}{" "}
        {notForUs.address && (
          <a href={notForUs.address} className="text-ink underline">
            {notForUs.label}
          </a>
        )}
      </p>
    )
  );
}
