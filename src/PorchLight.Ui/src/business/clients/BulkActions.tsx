import { useState } from "react";
import { DropdownMenu } from "radix-ui";
import { ChevronDown } from "lucide-react";
import { useMutation } from "@tanstack/react-query";
import { orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { controlLook } from "../../kit/fields";
import { menuItem, menuLook } from "../../kit/menu";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import type { ClientQuery } from "./clientQuery";
import { standings, standingWords } from "./standings";

interface Props {
  chosen: ReadonlySet<string>;
  /** What those stood as that are shown, so that it can be taken back. */
  standingOf: (id: string) => Schemas["Standing"] | undefined;
  query: ClientQuery;
  total: number;
  onChoose: (ids: string[]) => void;
}

/** What can be done with several clients at once. */
export function BulkActions({ chosen, standingOf, query, total, onChoose }: Props) {
  const say = useNotice();
  const [tag, setTag] = useState("");
  const ids = [...chosen];
  const all = useMutation({
    mutationFn: () => orProblem(api.POST("/api/clients/all-found", { body: query })),
    onSuccess: (found) => onChoose(found as string[]),
  });
  const put = (changes: Schemas["StandingOf"][]) => orProblem(api.PUT("/api/clients/standing", { body: changes }));
  const stand = useMutation({
    mutationFn: (standing: Schemas["Standing"]) => put(ids.map((client) => ({ client, standing }))),
    onSuccess: (_, standing) => {
      const before = ids.flatMap((client) => {
        const was = standingOf(client);
        return was ? [{ client, standing: was }] : [];
      });
      say({
        words:
          ids.length === 1
            ? `One is ${standingWords[standing]} now.`
            : `${ids.length} are ${standingWords[standing]} now.`,
        // Who was chosen without being shown cannot be put back by a press.
        undo:
          before.length === ids.length
            ? async () => {
                await put(before);
              }
            : undefined,
      });
    },
  });
  const putTags = (clients: string[], add: string[], remove: string[]) =>
    orProblem(api.PUT("/api/clients/tags", { body: { clients, add, remove } }));
  const label = useMutation({
    mutationFn: (word: string) => putTags(ids, [word], []),
    onSuccess: (_, word) => {
      setTag("");
      say({
        words: ids.length === 1 ? `One has the tag “${word}”.` : `${ids.length} have the tag “${word}”.`,
        undo: async () => {
          await putTags(ids, [], [word]);
        },
      });
    },
  });
  return (
    <div
      role="group"
      aria-label="With the selection"
      className="mb-3 flex flex-wrap items-center gap-2 rounded-soft bg-glow px-3 py-2"
    >
      <strong>{ids.length} chosen</strong>
      {ids.length < total && (
        <Button weight="quiet" disabled={all.isPending} onClick={() => all.mutate()}>
          Choose all {total}
        </Button>
      )}
      <Button weight="quiet" onClick={() => onChoose([])}>
        Choose none
      </Button>
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger className={buttonLook("plain")}>
          Set the standing <ChevronDown size={16} aria-hidden />
        </DropdownMenu.Trigger>
        <DropdownMenu.Content className={`${menuLook} p-1`}>
          {standings.map((one) => (
            <DropdownMenu.Item key={one} className={menuItem} onSelect={() => stand.mutate(one)}>
              {standingWords[one]}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Root>
      <form
        className="flex gap-1"
        onSubmit={(e) => {
          e.preventDefault();
          if (tag.trim() && !label.isPending) label.mutate(tag.trim());
        }}
      >
        <input
          aria-label="A tag for all of them"
          placeholder="a tag for all of them"
          className={`${controlLook} w-44`}
          value={tag}
          onChange={(e) => setTag(e.target.value)}
        />
        <Button type="submit" disabled={label.isPending || !tag.trim()}>
          Tag
        </Button>
      </form>
      <Failure error={all.error ?? stand.error ?? label.error} />
    </div>
  );
}
