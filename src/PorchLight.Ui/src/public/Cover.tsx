import type { FormPageView, PublicForm } from "./views";
import { OwnVideo } from "./PageItem";
import { brandButton } from "./controls/control";

/** What welcomes people before the first page. */
export function Cover({ door, form, onStart }: { door: FormPageView; form: PublicForm; onStart: () => void }) {
  const cover = form.cover!;
  return (
    <>
      {cover.picture && (
        <img src={cover.picture} alt={cover.pictureAlt} className="mb-5 max-h-72 w-full rounded-soft object-cover" />
      )}
      <p className="mb-1 text-slate">{door.business}</p>
      <h1 className="mb-3 text-title">{door.title}</h1>
      {cover.paragraphs.map((paragraph) => (
        <p key={paragraph} className="mb-3 whitespace-pre-line">
          {paragraph}
        </p>
      ))}
      {cover.video && <OwnVideo address={cover.video} title={door.title} />}
      <NotForUs form={form} />
      {cover.owner && <Owner owner={cover.owner} />}
      <button type="button" onClick={onStart} className={`${brandButton} mt-2`}>
        {cover.startLabel}
      </button>
    </>
  );
}

function Owner({ owner }: { owner: NonNullable<NonNullable<PublicForm["cover"]>["owner"]> }) {
  return (
    <div className="my-5 flex items-center gap-4">
      {owner.photo && (
        <img
          src={owner.photo}
          alt={owner.name}
          className="size-20 shrink-0 rounded-full border border-line object-cover"
        />
      )}
      <p className="min-w-0 border-l-4 border-[var(--brand)] pl-3">
        <strong>{owner.name}</strong>
        <br />
        <a href={`mailto:${owner.mail}`} className="underline">
          {owner.mail}
        </a>
        {owner.contact.map((line) => (
          <span key={line} className="block">
            {line}
          </span>
        ))}
      </p>
    </div>
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
