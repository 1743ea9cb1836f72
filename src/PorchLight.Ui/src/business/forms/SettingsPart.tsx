/** One thing that is set for a form, under its heading. */
export function SettingsPart({ title, note, children }: { title: string; note: string; children: React.ReactNode }) {
  return (
    <section className="min-w-0">
      <h2 className="text-section">{title}</h2>
      {note && <p className="mb-2">{note}</p>}
      {children}
    </section>
  );
}
