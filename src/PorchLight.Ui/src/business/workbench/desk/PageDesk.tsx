import { Button } from "../../../kit/Button";
import { ConditionEditor } from "../conditions/ConditionEditor";
import { changePage, type PageHead } from "../form";
import { KnownWords } from "../../messages/words";
import { useWorkbench } from "../workbenchContext";
import { KnownTextBox } from "./KnownTextBox";
import { elsewhere, Members } from "./Members";
import { Part, Sheet } from "./Sheet";

/** A page: what stands above it, when it is shown, and where it leads. */
export function PageDesk({ page, number }: { page: PageHead; number: number }) {
  const { form, edit } = useWorkbench();
  const change = (part: Partial<PageHead>, member: string) =>
    edit((now) => changePage(now, page.key, part), `${page.key}.${member}`);
  const routes = page.routes ?? [];
  const setRoutes = (next: typeof routes) => change({ routes: next }, "routes");
  const targets = [
    ...form.pages
      .slice(number)
      .map((one, index) => [one.key, `page ${number + index + 1}, ${plain(one.title)}`] as const),
    ...[...form.sendOffs, form.defaultSendOff].map((one) => [one.key, `the end: ${plain(one.title)}`] as const),
  ];
  const last = targets.at(-1)![0];
  return (
    <Sheet title={`Page ${number}`} place={page.key}>
      <Members
        of="Page"
        fields={{
          title: (
            <KnownTextBox
              label="What stands above it"
              look="font-head text-lead"
              value={page.title}
              onChange={(title) => change({ title }, "title")}
              place={page.key}
            />
          ),
          items: elsewhere,
          shownOnlyWhen: (
            <Part title="When it is shown">
              <ConditionEditor
                value={page.shownOnlyWhen}
                onChange={(shownOnlyWhen) => change({ shownOnlyWhen }, "shownOnlyWhen")}
                place={{ at: "item", key: page.key }}
                without="Always."
                begin="Show it only when …"
                label="Shown only when"
              />
            </Part>
          ),
          routes: (
            <Part title="Where it leads">
              {routes.length > 0 && (
                <ol className="grid gap-3">
                  {routes.map((route, index) => (
                    <li key={index} className="border-l-2 border-edge pl-3">
                      <Members
                        of="RouteRule"
                        fields={{
                          when: (
                            <ConditionEditor
                              value={route.when}
                              onChange={(when) =>
                                setRoutes(
                                  routes.flatMap((one, at) => (at !== index ? [one] : when ? [{ ...one, when }] : [])),
                                )
                              }
                              place={{ at: "afterPage", key: page.key }}
                              without=""
                              begin=""
                              label={index === 0 ? "When" : "Else, when"}
                            />
                          ),
                          to: (
                            <label className="flex flex-wrap items-center gap-2">
                              <span>continue with</span>
                              <select
                                className="rounded-soft border border-edge bg-card px-2.5 py-1.5"
                                value={route.to}
                                onChange={(e) =>
                                  setRoutes(
                                    routes.map((one, at) => (at === index ? { ...one, to: e.target.value } : one)),
                                  )
                                }
                              >
                                {!targets.some(([key]) => key === route.to) && (
                                  <option value={route.to}>something deleted, or earlier</option>
                                )}
                                {targets.map(([key, words]) => (
                                  <option key={key} value={key}>
                                    {words}
                                  </option>
                                ))}
                              </select>
                            </label>
                          ),
                        }}
                      />
                    </li>
                  ))}
                </ol>
              )}
              <p className="flex flex-wrap items-center gap-x-3">
                <span>{routes.length > 0 ? "Otherwise to the next page." : "Always to the next page."}</span>
                <Button
                  weight="quiet"
                  className="-ml-3"
                  onClick={() => setRoutes([...routes, { when: { kind: "all", parts: [] }, to: last }])}
                >
                  Lead elsewhere when …
                </Button>
              </p>
            </Part>
          ),
        }}
      />
    </Sheet>
  );
}

const plain = (title: string) => KnownWords.plain(title) || "without a title";
