import type { ReactNode } from "react";

/** How wide a page is and how far from the edge it begins: the same on every station. */
export const pageLook = "w-full max-w-page px-4 py-5 sm:px-10 sm:py-6";

interface HeadProps {
  title: ReactNode;
  /** Whether a panel stands beside it whose title is that of the screen. */
  isBesidePanel?: boolean;
  /** What narrows down what is below, beside the title. */
  filters?: ReactNode;
  /** What one does first here, at the right. */
  actions?: ReactNode;
}

/** The title of a page with its filters and its first action, always in one place. */
export function PageHead({ title, isBesidePanel = false, filters, actions }: HeadProps) {
  const Title = isBesidePanel ? "p" : "h1";
  return (
    <div className="mb-4 flex flex-wrap items-center gap-x-3 gap-y-2">
      <Title className="mr-2 font-head text-title leading-tight font-semibold">{title}</Title>
      {filters}
      {actions && <span className="ml-auto flex flex-wrap gap-2">{actions}</span>}
    </div>
  );
}

interface Props extends Omit<HeadProps, "isBesidePanel"> {
  /** The way back to what it belongs to. */
  back?: ReactNode;
  children: ReactNode;
}

/** A page that is one thing from its title down. */
export function Page({ back, children, ...head }: Props) {
  return (
    <main className="relative h-full overflow-y-auto">
      <div className={pageLook}>
        {back && <p className="mb-1">{back}</p>}
        <PageHead {...head} />
        {children}
      </div>
    </main>
  );
}
