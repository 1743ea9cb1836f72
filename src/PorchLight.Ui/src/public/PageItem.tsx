import type { Answer, PublicItem } from "./views";
import { useQuestionContext } from "./questionContext";
import { QuestionField, widths } from "./QuestionField";

interface Props {
  item: PublicItem;
  answer: Answer | undefined;
  onChange: (answer: Answer | undefined) => void;
}

/** What stands on a page: a question, or something that asks nothing. */
export function PageItem({ item, answer, onChange }: Props) {
  const { shown, step } = useQuestionContext();
  if (item.kind === "question")
    return <QuestionField question={item} place={item.key} answer={answer} onChange={onChange} />;
  if (!shown.has(item.key)) return null;
  const place = `mb-6 min-w-0 ${widths[item.width]}`;
  switch (item.kind) {
    case "heading":
      return <h3 className={`${place} mb-3 text-lead`}>{step.wordings[item.key] ?? item.text}</h3>;
    case "passage":
      return <p className={`${place} whitespace-pre-line`}>{step.wordings[item.key] ?? item.text}</p>;
    case "picture":
      return (
        <div className={place}>
          <img src={item.address} alt={item.alt} className="max-w-full rounded-soft" />
        </div>
      );
    case "video":
      return (
        <div className={place}>
          <OwnVideo address={item.address} title={item.title} />
        </div>
      );
    case "divider":
      return <hr className={`${place} border-line`} />;
    case "download":
      return (
        <p className={place}>
          <a href={item.address} className="font-semibold text-[var(--brand)] underline">
            {item.label}
          </a>
        </p>
      );
  }
}

export function OwnVideo({ address, title }: { address: string; title: string }) {
  // The business's own files have no captions yet; the title says what is to be seen.
  // eslint-disable-next-line jsx-a11y/media-has-caption
  return <video src={address} controls preload="metadata" aria-label={title} className="max-w-full rounded-soft" />;
}
